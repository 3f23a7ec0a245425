import { expose } from 'comlink'
import { climateOf } from '../../core/circuit'
import {
  goOn,
  huntOf,
  oddsBasis,
  reportOf,
  type Circumstances,
  type Hunt,
  type HuntReport,
  type HuntStep,
  type Known,
} from '../../core/hunt'
import type { Meter, WiringState } from '../../core/record'
import type { ControllerId, PlaceId, Site } from '../../core/site'

/** Everything a hunt hangs on besides its steps. */
export interface HuntAsk {
  readonly site: Site
  readonly controller: ControllerId
  readonly ground_C: number
  readonly coil_C: number | null
  readonly meter: Meter
  readonly known: readonly Known[]
  readonly failing: readonly WiringState[]
  readonly left: number
  readonly from: PlaceId | null
  readonly helper: boolean
  readonly circumstances: Circumstances
  /** As the company goes by; null for the usual ones. */
  readonly odds: unknown
  readonly today: string
}

interface Held {
  readonly key: string
  readonly steps: readonly HuntStep[]
  readonly hunt: Hunt
}
/** Hunts that were asked for last, the last one first: of two controllers neither is begun anew at every change. */
let held: readonly Held[] = []
const MOST_HELD = 2

const work = {
  /**
   * How a hunt stands after its steps; a hunt that only went on is gone on with. Null where nothing can be measured.
   */
  stand(ask: HuntAsk, steps: HuntStep[]): HuntReport | null {
    const key = JSON.stringify(ask)
    const before = held.find((h) => h.key === key)
    const others = held.filter((h) => h.key !== key)
    const hunt = (before && goOn(before.hunt, before.steps, steps)) ?? begun(ask, steps)
    held = hunt ? [{ key, steps, hunt }, ...others].slice(0, MOST_HELD) : others
    return hunt && reportOf(hunt)
  },
}

function begun(ask: HuntAsk, steps: HuntStep[]): Hunt | null {
  const odds = ask.odds === null ? null : oddsBasis.safeParse(ask.odds)
  const hunt = huntOf(ask.site, ask.controller, {
    climate: climateOf(ask.site, ask.ground_C, ask.coil_C),
    meter: ask.meter,
    known: ask.known,
    failing: ask.failing,
    left: ask.left,
    helper: ask.helper,
    circumstances: ask.circumstances,
    today: ask.today,
    ...(odds?.success ? { odds: odds.data } : {}),
    ...(ask.from === null ? {} : { from: ask.from }),
  })
  return hunt && goOn(hunt, [], steps)
}
export type HuntWork = typeof work

expose(work)
