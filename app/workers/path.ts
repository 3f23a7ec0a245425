import { expose } from 'comlink'
import {
  alongPath,
  outputsAnswering,
  pathMargins,
  pathVolts,
  runningVolts,
  secondWays,
  worstFor,
  type AlongPath,
  type LoadModel,
  type PathMargin,
  type PathVolts,
  type SecondWay,
} from '../../core/path'
import { pathOf, type ControllerId, type DeviceId, type Site } from '../../core/site'

/** A path in one state, by both ways of taking a load. */
export interface PathState {
  readonly current: PathVolts
  readonly impedance: PathVolts
  /** One more cable from the controller: the ways that help most, under the worst. */
  readonly ways: readonly SecondWay[]
}

const MOST_WAYS = 3

const work = {
  /** Volts with these numbers on; null where the profile or the numbers do not allow it. */
  volts(site: Site, controller: ControllerId, numbers: readonly number[], isWorst: boolean): PathState | null {
    const path = pathOf(site, controller)
    const on = path && outputsAnswering(site, path, numbers)
    if (!path || !on?.ok) return null
    const volts = (model: LoadModel) => pathVolts(site, path, model, on.value, isWorst ? worstFor(site) : {})
    const [current, impedance] = [volts('constant_current'), volts('constant_impedance')]
    const ways = secondWays(site, path, on.value)
    return current.ok && impedance.ok && ways.ok
      ? { current: current.value, impedance: impedance.value, ways: ways.value.slice(0, MOST_WAYS) }
      : null
  },
  /**
   * Every decoder and starting coil at its worst moment, the weakest first; null where the profile does not allow it.
   */
  margins(site: Site, controller: ControllerId): PathMargin[] | null {
    const path = pathOf(site, controller)
    const margins = path && pathMargins(site, path)
    return margins?.ok ? margins.value : null
  },
  /** Volts at the decoder of every output while it starts. */
  running(site: Site, controller: ControllerId): ReadonlyMap<string, { volt_V: number; enough: boolean }> | null {
    const path = pathOf(site, controller)
    const running = path && runningVolts(site, path)
    return running?.ok ? running.value : null
  },
  /** The way to one output. */
  along(site: Site, controller: ControllerId, decoder: DeviceId, port: string): AlongPath | null {
    const path = pathOf(site, controller)
    const along = path && alongPath(site, path, decoder, port)
    return along?.ok ? along.value : null
  },
}
export type PathWork = typeof work

expose(work)
