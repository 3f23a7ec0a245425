import { wrap, type Remote } from 'comlink'
import type { State } from '../../core/expect'
import type { Facts } from '../../core/record'
import type { Site } from '../../core/site'
import type { StatesWork } from '../workers/states'

let worker: Remote<StatesWork> | null = null

function workerAtHand(): Remote<StatesWork> {
  worker ??= wrap<StatesWork>(new Worker(new URL('../workers/states.ts', import.meta.url), { type: 'module' }))
  return worker
}

/** How every reading stood when it was taken, by id, worked out beside the page; null until it is there. */
export function useStates(
  site: () => Site | null,
  facts: () => Facts | null,
): Readonly<Ref<Readonly<Record<string, State>> | null>> {
  const states = shallowRef<Record<string, State> | null>(null)
  let asked = 0
  watch(
    [site, facts],
    async ([s, f]) => {
      const mine = ++asked
      if (!s || !f) return
      const answer = await workerAtHand().states(...(JSON.parse(JSON.stringify([s, f])) as [Site, Facts]))
      if (mine === asked) states.value = answer
    },
    { immediate: true },
  )
  return states
}
