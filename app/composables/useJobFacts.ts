import {
  offFor,
  type CautionCode,
  type FieldTest,
  type Finding,
  type ReadingValue,
  type WiringState,
} from '../../core/record'
import { useProperty } from '../stores/property'

/** Writes down what belongs to a job: each fact carries the job, the moment and who leads it. */
export function useJobFacts(jobId: () => string) {
  const property = useProperty()
  const job = () => property.facts!.jobs[jobId()]!
  const now = () => new Date().toISOString()
  const { record } = property

  /** A reading by the job's meter, at the job's temperature, of the record as it is now. */
  const read = (
    test: FieldTest,
    value: ReadingValue,
    { at = now(), state }: { at?: string; state?: WiringState } = {},
  ) => {
    const { author, meter, ground_C } = job()
    const { revision } = property.held!
    const off = offFor(test.kind)
    return record({
      kind: 'reading',
      fact: { job: jobId(), at, author, revision, test, off, meter, ground_C, value, ...(state ? { state } : {}) },
    })
  }
  const strike = (reading: string, reason: string, at = now()) =>
    record({ kind: 'strikeOut', fact: { reading, at, author: job().author, reason } })
  const tick = (code: CautionCode) =>
    record({ kind: 'caution', fact: { job: jobId(), at: now(), author: job().author, code } })
  const close = (dialBack: boolean) =>
    record({ kind: 'closing', fact: { job: jobId(), at: now(), author: job().author, dialBack } })
  const find = (found: Pick<Finding, 'where' | 'says' | 'belief' | 'how'>) =>
    record({ kind: 'finding', fact: { job: jobId(), at: now(), author: job().author, ...found } })
  return { read, strike, tick, close, find }
}
