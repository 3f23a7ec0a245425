import { expose } from 'comlink'
import { climateOf } from '../../core/circuit'
import {
  goOn,
  huntOf,
  reportOf,
  type Circumstances,
  type Hunt,
  type HuntReport,
  type HuntStep,
  type Known,
} from '../../core/hunt'
import type { Meter } from '../../core/record'
import type { ControllerId, PlaceId, Site } from '../../core/site'

/** Everything a hunt hangs on besides its steps. */
export interface HuntAsk {
  readonly site: Site
  readonly controller: ControllerId
  readonly ground_C: number
  readonly coil_C: number | null
  readonly meter: Meter
  readonly known: readonly Known[]
  readonly from: PlaceId | null
  readonly helper: boolean
  readonly circumstances: Circumstances
  readonly today: string
}

let held: { key: string; steps: readonly HuntStep[]; hunt: Hunt } | null = null

const work = {
  /**
   * How a hunt stands after its steps; a hunt that only went on is gone on with. Null where nothing can be measured.
   */
  stand(ask: HuntAsk, steps: HuntStep[]): HuntReport | null {
    const key = JSON.stringify(ask)
    const before = held?.key === key ? goOn(held.hunt, held.steps, steps) : null
    const fresh =
      before ??
      huntOf(ask.site, ask.controller, {
        climate: climateOf(ask.site, ask.ground_C, ask.coil_C),
        meter: ask.meter,
        known: ask.known,
        helper: ask.helper,
        circumstances: ask.circumstances,
        today: ask.today,
        ...(ask.from === null ? {} : { from: ask.from }),
      })
    if (!fresh) {
      held = null
      return null
    }
    if (!before) goOn(fresh, [], steps)
    held = { key, steps, hunt: fresh }
    return reportOf(fresh)
  },
}
export type HuntWork = typeof work

expose(work)
