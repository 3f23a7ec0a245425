import { proxy, wrap, type Remote } from 'comlink'
import type { PathSizing } from '../../core/path'
import type { Margins, ReachTable, SizingAnswer, WhatIf } from '../../core/sizing'
import type { ControllerId, Site } from '../../core/site'
import type { MarginsWork } from '../workers/margins'
import type { SizingWork } from '../workers/sizing'

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

let margins: Remote<MarginsWork> | null = null

/** Every thread at its worst, worked out beside the page, and how far each size reaches. */
export function useMargins(
  site: () => Site | null,
  what: () => WhatIf,
): { found: Readonly<Ref<Margins | null>>; reach: Readonly<Ref<ReachTable | null>>; behind: Readonly<Ref<boolean>> } {
  const { found: both, behind } = useLatest(
    () => [site(), what()],
    () => {
      const now = site()
      if (!now) return null
      margins ??= wrap<MarginsWork>(new Worker(new URL('../workers/margins.ts', import.meta.url), { type: 'module' }))
      const [s, w] = plain([now, what()] as const)
      return Promise.all([margins.margins(s, w), margins.reach(s, w)])
    },
  )
  return { found: computed(() => both.value?.[0] ?? null), reach: computed(() => both.value?.[1] ?? null), behind }
}

export interface SizingRun {
  readonly best_cents: number | null
  readonly bound_cents: number | null
}

type Told = Parameters<SizingWork['size']>[2]

/** The choice of sizes for the threads of a property, in a worker of its own. */
export const useSizing = () =>
  useSizingRun((work, site: Site, anew: boolean, told): Promise<SizingAnswer> => work.size(site, anew, told))

/** The choice of sizes for the two-wire path of a controller. */
export const usePathSizing = (controller: () => ControllerId) =>
  useSizingRun((work, site: Site, anew: boolean, told): Promise<PathSizing | null> =>
    work.path(site, controller(), anew, told),
  )

/** A choice of sizes in a worker of its own, which is ended to stop it. */
function useSizingRun<A>(ask: (work: Remote<SizingWork>, site: Site, anew: boolean, told: Told) => Promise<A>): {
  running: Readonly<Ref<SizingRun | null>>
  answer: Ref<A | null>
  start: (site: Site, anew: boolean) => Promise<void>
  stop: () => void
} {
  const running = shallowRef<SizingRun | null>(null)
  const answer: Ref<A | null> = shallowRef(null)
  let worker: Worker | null = null
  function stop(): void {
    worker?.terminate()
    worker = null
    running.value = null
  }
  async function start(site: Site, anew: boolean): Promise<void> {
    stop()
    answer.value = null
    running.value = { best_cents: null, bound_cents: null }
    const mine = (worker = new Worker(new URL('../workers/sizing.ts', import.meta.url), { type: 'module' }))
    const found = await ask(
      wrap<SizingWork>(mine),
      plain(site),
      anew,
      proxy((best_cents: number | null, bound_cents: number) => {
        if (worker === mine)
          running.value = { best_cents, bound_cents: Number.isFinite(bound_cents) ? bound_cents : null }
      }),
    )
    if (worker !== mine) return
    answer.value = found
    stop()
  }
  onBeforeUnmount(stop)
  return { running, answer, start, stop }
}
