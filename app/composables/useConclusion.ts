import { wrap, type Remote } from 'comlink'
import type { SweepReading, State } from '../../core/expect'
import type { Facts, Job } from '../../core/record'
import type { Site } from '../../core/site'
import type { Concluded, ConcludeWork } from '../workers/conclude'

let worker: Remote<ConcludeWork> | null = null

function workerAtHand(): Remote<ConcludeWork> {
  worker ??= wrap<ConcludeWork>(new Worker(new URL('../workers/conclude.ts', import.meta.url), { type: 'module' }))
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

/**
 * The joint conclusion of a job's readings, worked out beside the page; null while it is being worked out or there is
 * nothing to judge.
 */
export function useConclusion(
  site: () => Site | null,
  job: () => Job | null,
  observations: () => readonly SweepReading[],
): Readonly<Ref<Concluded | null>> {
  const concluded = shallowRef<Concluded | null>(null)
  let asked = 0
  watch(
    [site, job, observations],
    async ([s, v, o]) => {
      const mine = ++asked
      if (!s || !v || o.length === 0) {
        concluded.value = null
        return
      }
      const plain = JSON.parse(JSON.stringify([s, o])) as [Site, SweepReading[]]
      const answer = await workerAtHand().concludeSweep(plain[0], v.controller, v.ground_C, v.coil_C, plain[1])
      if (mine === asked) concluded.value = answer
    },
    { immediate: true },
  )
  return concluded
}
