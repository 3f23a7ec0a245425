import { expectSweep } from '../../core/expect'
import { contradictionsOf, newestOf, pastOfTest, type Newest } from '../../core/history'
import { COMMON_METER } from '../../core/record'
import type { ControllerId, TerminalId } from '../../core/site'
import { useProperty } from '../stores/property'

/**
 * Of each thread of a controller what was read last, whichever job it was: what is known, whoever begins anew. What
 * something newer speaks against is not known any more.
 */
export function useNewest(controller: () => ControllerId): ComputedRef<ReadonlyMap<TerminalId, Newest>> {
  const property = useProperty()
  const tests = computed(() =>
    property.site
      ? expectSweep(property.sceneAt(null), controller(), COMMON_METER).map((e) => [e.terminal, e.test] as const)
      : [],
  )
  return computed(() => {
    const past = property.pastBefore(null)
    const scene = property.sceneAt(null)
    const isContradicted = contradictionsOf(scene, controller(), property.facts!)
    return new Map(
      tests.value.flatMap(([terminal, test]) => {
        const newest = newestOf(scene, property.sceneAt, test, pastOfTest(past, test))
        if (!newest) return []
        return [[terminal, isContradicted(terminal, newest) ? { ...newest, state: 'none' as const } : newest] as const]
      }),
    )
  })
}
