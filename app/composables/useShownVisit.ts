import { isOhms, standingReadings, visitsInOrder } from '../../core/record'
import type { ControllerId } from '../../core/site'
import { useProperty } from '../stores/property'

/** `?visit=none` asks for no readings at all. */
export const NO_VISIT = 'none'

/**
 * The visit of a controller whose readings are shown: the one in the page's address or asked for, where it is of this
 * controller, else its latest in which anything was read that stands; null for none.
 */
export function useShownVisit(controller: () => ControllerId | null): ComputedRef<string | null> {
  const route = useRoute()
  const property = useProperty()
  return computed((): string | null => {
    const { facts } = property
    const id = controller()
    if (!facts || id === null) return null
    const asked = route.params.visit ?? route.query.visit
    if (asked === NO_VISIT) return null
    if (typeof asked === 'string' && facts.visits[asked]?.controller === id) return asked
    const visits = visitsInOrder(facts).filter((v) => facts.visits[v]!.controller === id)
    // One that was only begun says nothing yet; what is known stays in view.
    return visits.find((v) => standingReadings(facts, v).some((l) => isOhms(l.reading))) ?? visits[0] ?? null
  })
}
