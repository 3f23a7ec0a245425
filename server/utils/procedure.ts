import type { H3Event } from 'h3'
import { refusal } from '../../core/refusal'
import { MOST_PROCEDURES, type ProcedureChange } from '../db/procedures'
import { refuse, type RefusedBody } from './reply'

/** What a change to a company’s own procedure answers: its revision, or why it was not made. */
export function changedProcedure(event: H3Event, change: ProcedureChange): { revision: number } | RefusedBody {
  if (change.kind === 'done') return { revision: change.revision }
  return change.kind === 'full'
    ? refuse(event, 413, [refusal('procedures_full', [], { most: MOST_PROCEDURES })])
    : refuse(event, 409, [refusal('procedure_changed_since')])
}
