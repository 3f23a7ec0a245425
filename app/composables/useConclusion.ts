import { huntOptionsFor } from '../lib/hunt-options'
import { oddsHere } from '../lib/odds'
import { useHunt } from './useHunt'

/** What the readings of a job say together: the same beliefs that Diagnose has of them. */
export function useConclusion(jobId: () => string | null) {
  const { job, report, working } = useHunt(
    jobId,
    () => false,
    () => ({ ...huntOptionsFor(jobId()), odds: oddsHere() }),
  )
  /** Something is wrong, or not every reading is explained. */
  const tells = computed(
    () => report.value !== null && (report.value.strained || report.value.troubles.some((x) => x.wrong)),
  )
  /** The parts that may be what is wrong, for the drawing. */
  const suspects = computed(() => report.value?.troubles.flatMap((x) => (x.wrong ? x.parts : [])) ?? [])
  return { job, report, working, tells, suspects }
}
