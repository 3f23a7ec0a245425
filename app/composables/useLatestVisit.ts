import { visitsInOrder } from '../../core/record'
import type { ControllerId } from '../../core/site'
import { useProperty } from '../stores/property'

/** `?visit=none` asks for no readings at all. */
export const NO_VISIT = 'none'

/** The visit whose readings the page shows: the one in its address, the one asked for, or the latest. */
export function useLatestVisit(): { id: ComputedRef<string | null>; controller: ComputedRef<ControllerId | null> } {
  const route = useRoute()
  const property = useProperty()
  const id = computed((): string | null => {
    const { facts } = property
    if (!facts) return null
    const asked = route.params.visit ?? route.query.visit
    if (asked === NO_VISIT) return null
    if (typeof asked === 'string' && facts.visits[asked]) return asked
    return visitsInOrder(facts)[0] ?? null
  })
  return { id, controller: computed(() => (id.value ? property.facts!.visits[id.value]!.controller : null)) }
}
