import { isOhms, standingReadings, jobsThatRead } from '../../core/record'
import type { ControllerId } from '../../core/site'
import { useProperty } from '../stores/property'

/** `?job=none` asks for no readings at all. */
export const NO_JOB = 'none'

/**
 * The job of a controller whose readings are shown: the one in the page's address or asked for, where it is of this
 * controller, else its latest in which anything was read that stands; null for none.
 */
export function useShownJob(controller: () => ControllerId | null): ComputedRef<string | null> {
  const route = useRoute()
  const property = useProperty()
  return computed((): string | null => {
    const { facts } = property
    const id = controller()
    if (!facts || id === null) return null
    const asked = route.params.job ?? route.query.job
    if (asked === NO_JOB) return null
    const jobs = jobsThatRead(facts).filter((v) => facts.jobs[v]!.controller === id)
    if (typeof asked === 'string' && jobs.includes(asked)) return asked
    // One that was only begun says nothing yet; what is known stays in view.
    return jobs.find((v) => standingReadings(facts, v).some((l) => isOhms(l.reading))) ?? jobs[0] ?? null
  })
}
