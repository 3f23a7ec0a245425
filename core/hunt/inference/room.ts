import type { FaultHypothesis } from '../variants'
import type { CellClass, Model } from './classes'
import { fitUnder, isOhms, SHARPER_NATS, type Unit } from './units'

/** How much better readings could fit than some faults explain them, nats. */
export interface Room {
  /** By reading, each by itself. */
  readonly apart: Float64Array
  /** What readings in ohms leave beyond that because they do not go together. */
  readonly together: number
}

/** The room that some faults leave in the readings of some units, in their order. */
export function roomOf(model: Model, units: readonly Unit[], faults: readonly FaultHypothesis[]): Room {
  const list = units.flatMap((u) => u.readings)
  const apart = Float64Array.from(list, (reading) => {
    const { log, best } = fitUnder(model, [reading], faults)
    return Math.max(0, best - log)
  })
  let [at, together] = [0, 0]
  for (const { readings } of units) {
    const sum = apart.subarray(at, (at += readings.length)).reduce((s, x) => s + x, 0)
    if (readings.length === 1) continue
    const { log, best } = fitUnder(model, readings, faults)
    together = Math.max(0, best - log - sum)
  }
  return { apart, together }
}

/** By class: the readings in which it may show; one that leads one thread's current to another's may in all. */
export const reachesOf = (model: Model, units: readonly Unit[], classes: readonly CellClass[]): readonly Reach[] => {
  const list = units.flatMap((u) => u.readings)
  const shows = list.map(({ test }) => model.shows(test))
  const ohms = list.map(isOhms)
  return classes.map(({ members: [first] }) => {
    const all = model.catalogue.faults[first!.fault]!.links
    const readings = list.flatMap((_, r) => (all || shows[r]![first!.index] !== 0 ? [r] : []))
    return { readings, inOhms: readings.some((r) => ohms[r]) }
  })
}
export interface Reach {
  readonly readings: readonly number[]
  readonly inOhms: boolean
}

/** How much better one more fault that reaches so far could make readings fit, nats. */
export const roomFor = ({ apart, together }: Room, { readings, inOhms }: Reach): number =>
  readings.reduce((s, r) => s + apart[r]!, inOhms ? together : 0) + SHARPER_NATS
