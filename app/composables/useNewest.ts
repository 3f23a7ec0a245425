import { expectSweep } from '../../core/expect'
import { newestOf, pastOfTest, type Newest } from '../../core/history'
import { COMMON_METER } from '../../core/record'
import type { ControllerId, TerminalId } from '../../core/site'
import { useProperty } from '../stores/property'

/** Of each thread of a controller what was read last, whichever job it was: what is known, whoever begins anew. */
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
    return new Map(
      tests.value.flatMap(([terminal, test]) => {
        const newest = newestOf(scene, property.sceneAt, test, pastOfTest(past, test))
        return newest ? [[terminal, newest] as const] : []
      }),
    )
  })
}
