import { peopleOf, visitsInOrder } from '../../core/record'
import { today } from '../lib/today'
import { useProperty } from '../stores/property'

/** The visit that is under way: the latest one, where it began on this day of the reader's own calendar. */
export function useVisitToday(): ComputedRef<{ id: string; at: string; people: string } | null> {
  const property = useProperty()
  return computed(() => {
    const { facts } = property
    const id = facts && visitsInOrder(facts)[0]
    if (!id) return null
    const { at } = facts.visits[id]!
    return today(new Date(at)) === today() ? { id, at, people: peopleOf(facts, id).join(', ') } : null
  })
}
