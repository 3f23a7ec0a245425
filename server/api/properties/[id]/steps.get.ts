import { getQuery } from 'h3'
import * as z from 'zod'
import { revisionNumber } from '../../../../core/record'
import { parseWith } from '../../../../core/refusal'
import { actingAs } from '../../../db/actor'
import { stepsAfter, stepsBefore } from '../../../db/journal'
import { actorOf } from '../../../utils/actor'
import { database } from '../../../utils/database'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'

const revision = z.coerce.number().pipe(revisionNumber)
const query = z.union([z.strictObject({ before: revision }), z.strictObject({ after: revision })])

/**
 * Changes before a revision, the latest first; or those after one, the earliest first, with their commands, for a page
 * that catches up. As many as go into one answer.
 */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const wanted = asked.value
  return actingAs(database(), actorOf(event), async (within) => ({
    steps:
      'before' in wanted
        ? await stepsBefore(within, id.value, wanted.before)
        : await stepsAfter(within, id.value, wanted.after),
  }))
})
