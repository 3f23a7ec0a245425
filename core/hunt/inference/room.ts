import type { FaultHypothesis } from '../catalogue'
import type { CellClass, Model } from './classes'
import type { Fit } from './likelihood'
import { fitIn, fitUnder, isOfCoils, SHARPER_NATS, type Unit } from './units'

/** How much better readings could fit than some faults explain them, nats. */
export interface Room {
  /** By reading, each by itself. */
  readonly apart: Float64Array
  /** What readings with coils in common leave beyond that because they do not go together. */
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
  for (const unit of units) {
    const { readings } = unit
    const sum = apart.subarray(at, (at += readings.length)).reduce((s, x) => s + x, 0)
    if (readings.length === 1) continue
    const { log, best } = fitIn(model, unit, faults)
    together = Math.max(0, best - log - sum)
  }
  return { apart, together }
}

/** By class: the readings in which it may show. */
export const reachesOf = (model: Model, units: readonly Unit[], classes: readonly CellClass[]): readonly Reach[] => {
  const list = units.flatMap((u) => u.readings)
  const shows = list.map(({ test }) => model.shows(test))
  const ofCoils = list.map(isOfCoils)
  return classes.map(({ members: [first] }) => {
    const fault = model.catalogue.faults[first!.fault]!
    const may = Uint8Array.from(list, ({ test }) => (model.predictor.mayAffect(test, fault) ? 1 : 0))
    const alone = fault.links ? may : Uint8Array.from(shows, (numbers) => (numbers[first!.index] !== 0 ? 1 : 0))
    // One that leads one thread's current to another's may show in all.
    const readings = list.flatMap((_, r) => (fault.links || alone[r] ? [r] : []))
    return {
      readings,
      ofCoils: readings.some((r) => ofCoils[r]),
      alone,
      may,
      links: fault.links,
      threads: model.threads[fault.index]!,
      leaks: first!.leak !== null,
    }
  })
}
export interface Reach {
  readonly readings: readonly number[]
  readonly ofCoils: boolean
  /** By reading: whether it can show there where no other fault leads current on, and where one does. */
  readonly alone: Uint8Array
  readonly may: Uint8Array
  readonly links: boolean
  readonly threads: Model['threads'][number]
  readonly leaks: boolean
}

/** How much better one more fault that reaches so far could make readings fit, nats. */
export const roomFor = ({ apart, together }: Room, { readings, ofCoils }: Reach): number =>
  readings.reduce((s, r) => s + apart[r]!, ofCoils ? together : 0) + SHARPER_NATS

/** A fault by itself: where it shows, how much each reading leaves, and how well all could fit, nats. */
export interface Single {
  readonly reach: Reach
  readonly apart: Float64Array
  readonly most: number
}
/** `chance`: what no fault explains of it. */
export const singleOf = ({ log, best }: Fit, { apart, together }: Room, reach: Reach, chance: number): Single => {
  // What each reading leaves by itself may be the same twice: a coil that deviates.
  const most = log + apart.reduce((s, x) => s + x, together)
  return { reach, apart, most: Math.max(log, (best === -Infinity ? most : Math.min(most, best)) - chance) }
}
/** What readings leave by chance, less a deviation of it, nats: half a nat for each beyond the first of every coil. */
export const leftByChance = (units: readonly Unit[]): number =>
  units.reduce((s, { readings, apart }) => {
    const beyond = Math.max(0, readings.length - apart.length) / 2
    return s + Math.max(0, beyond - Math.sqrt(beyond))
  }, 0)
/**
 * How well readings could fit two faults together, nats: those that only one of them reaches as they fit that one; and
 * whether both reach any.
 */
export function fitAtMost(one: Single, other: Single): { readonly most: number; readonly meet: boolean } {
  const [a, b] = [besideIn(one.reach, other.reach), besideIn(other.reach, one.reach)]
  let [missed, meet] = [0, false]
  for (let r = 0; r < a.length; r++)
    if (b[r] === 0) missed += one.apart[r]!
    else if (a[r] === 0) missed += other.apart[r]!
    else meet = true
  return { most: Math.max(one.most, other.most) - missed + SHARPER_NATS, meet }
}
/** The readings in which a fault may show beside another: also where that leads its thread's current to. */
function besideIn({ alone, threads }: Reach, other: Reach): Uint8Array {
  const isLed = other.links && (!threads || !other.threads || threads.some((t) => other.threads!.includes(t)))
  if (!other.leaks && !isLed) return alone
  return alone.map((x, r) => x | other.may[r]!)
}
