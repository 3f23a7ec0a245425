import { isToEarth } from '../../record'
import type { Observation } from '../beliefs'
import type { Predictor } from '../memoize'
import type { Prediction } from '../predict'
import { leadsOn, type FaultHypothesis } from '../catalogue'
import type { Model } from './classes'
import { fitOf, type Fit, type Weighable, type WholeFit } from './likelihood'

/** A fault may also blur what it explains less than is foreseen without it, nats. */
export const SHARPER_NATS = 0.7

/** How readings fit some faults. */
export function fitUnder(model: Model, readings: readonly Observation[], faults: readonly FaultHypothesis[]): WholeFit {
  const { predictor } = model
  const weighables = readings.map(({ test, value, times }): Weighable => {
    const seen = predictor.under(test, faults)
    return { value, times, seen, slots: slotsOf(predictor, test, faults, seen) }
  })
  return fitOf(weighables, model.supply_V, model.coils)
}
/** Log-likelihood of readings under some faults. */
export const logOf = (model: Model, readings: readonly Observation[], faults: readonly FaultHypothesis[]): number =>
  fitUnder(model, readings, faults).log

/**
 * Which figure of which fault each of a prediction's is: four to a fault, in the order of the hypothesis. A leak that
 * nothing leads to has none; the others' order is then not known, and each is taken for one of its own.
 */
export function slotsOf(
  predictor: Predictor,
  test: Observation['test'],
  faults: readonly FaultHypothesis[],
  seen: Prediction | null,
): readonly number[] {
  const ohms = seen?.kind === 'either' ? seen.well : seen
  if (ohms?.kind !== 'ohms' || ohms.figures.length === 0) return []
  const felt = faults.length === 1 ? faults : predictor.activeFaults(test, faults)
  // What is read to earth follows leaks alone.
  const slots = felt.flatMap((v) => {
    if (isToEarth(test) && !v.leak) return []
    const at = faults.indexOf(v)
    return Array.from({ length: v.leak ? 1 : v.shifted.length }, (_, k) => 4 * at + k)
  })
  return slots.length === ohms.figures.length ? slots : ohms.figures.map((_, k) => -1 - k)
}
/** The slot of a fault's ohms among those of some. */
export const slotOf = (faults: readonly FaultHypothesis[], v: FaultHypothesis): number => 4 * faults.indexOf(v)

/** Readings that are weighed together, and how they fit where nothing is wrong. */
export interface Unit {
  readonly readings: readonly Observation[]
  readonly sound: Fit
  /** How they fit some faults, each worked out once; by those that can show in them. */
  readonly fits: Map<string, Fit>
  /** Of them some that have no coil in common. */
  readonly apart: readonly Observation[]
  /** By fault: whether it can show in any of them. */
  readonly mayShow: readonly boolean[]
}
/** Readings in ohms from wire to wire have coils in common; those to earth have none. */
export const isOfCoils = ({ test, value }: Observation): boolean =>
  (value.kind === 'ohm' || value.kind === 'open') && !isToEarth(test)

export function unitsOf(model: Model, readings: readonly Observation[]): Unit[] {
  const unit = (list: readonly Observation[]): Unit => unitOf(model, list, fitUnder(model, list, []))
  const ofCoils = readings.filter(isOfCoils)
  return [
    ...(ofCoils.length > 0 ? [unit(ofCoils)] : []),
    ...readings.filter((r) => !isOfCoils(r)).map((r) => unit([r])),
  ]
}
/**
 * Units of groups that a fault leads to each other: readings in ohms have coils in common then. Where nothing is wrong
 * they fit as they do in their groups, so that what they are held against is the same.
 */
export function linkedUnits(model: Model, groups: readonly { readonly units: readonly Unit[] }[]): Unit[] {
  const units = groups.flatMap((g) => g.units)
  const ofCoils = units.filter((u) => isOfCoils(u.readings[0]!))
  if (ofCoils.length < 2) return units
  const sum = (of: (f: Fit) => number) => ofCoils.reduce((s, u) => s + of(u.sound), 0)
  const readings = ofCoils.flatMap((u) => u.readings)
  const together = unitOf(model, readings, { log: sum((f) => f.log), best: sum((f) => f.best) })
  return [together, ...units.filter((u) => !ofCoils.includes(u))]
}
const unitOf = ({ catalogue, predictor }: Model, readings: readonly Observation[], sound: Fit): Unit => ({
  readings,
  sound,
  fits: new Map(),
  apart: withoutCommonCoils(predictor, readings),
  mayShow: catalogue.faults.map((f) => readings.some(({ test }) => predictor.mayAffect(test, f))),
})

/** Those with the fewest coils first. */
function withoutCommonCoils(predictor: Predictor, readings: readonly Observation[]): Observation[] {
  const coilsOf = ({ test }: Observation): readonly string[] => {
    const base = predictor.base(test)
    return base?.kind === 'ohms' ? base.coils.map(([d]) => d) : []
  }
  const taken = new Set<string>()
  return [...readings]
    .sort((a, b) => coilsOf(a).length - coilsOf(b).length)
    .filter((r) => {
      const coils = coilsOf(r)
      if (coils.length === 0 || coils.some((d) => taken.has(d))) return false
      for (const d of coils) taken.add(d)
      return true
    })
}

/** How the readings of a unit fit some faults. */
export function fitIn(model: Model, unit: Unit, faults: readonly FaultHypothesis[]): Fit {
  let felt = faults.filter((v) => unit.mayShow[v.fault])
  if (felt.some((v) => leadsOn(model.catalogue.faults[v.fault]!))) felt = [...faults]
  const key = felt.map((v) => v.index).join()
  let fit = unit.fits.get(key)
  if (!fit) unit.fits.set(key, (fit = fitUnder(model, unit.readings, felt)))
  return fit
}

/**
 * By how much at least readings of a unit that have no coil in common miss some faults, nats; past `enough` no further.
 */
function missedIn(model: Model, { readings, apart }: Unit, faults: readonly FaultHypothesis[], enough: number): number {
  if (readings.length === 1 || enough === Infinity) return 0
  let missed = 0
  for (const reading of apart) {
    const { log, best } = fitUnder(model, [reading], faults)
    missed += Math.max(0, best - log)
    if (missed > enough) break
  }
  return missed
}

/** How much better than where nothing is wrong readings could fit at most, nats. */
export const mostOf = (units: readonly Unit[]): number =>
  units.reduce((s, { sound }) => s + sound.best - sound.log, SHARPER_NATS)

/** `cut`: it was not followed to its end; `log` is the most that it could be. */
export interface Gain extends Fit {
  readonly cut?: true
}
/**
 * How much better some faults explain readings than none, nats, and how much better anything could. Those that cannot
 * reach `least` any more are not followed to the last reading.
 */
export function gainOf(
  model: Model,
  units: readonly Unit[],
  faults: readonly FaultHypothesis[],
  least = -Infinity,
): Gain {
  let [log, best] = [0, 0]
  let hope = mostOf(units)
  for (const unit of units) {
    const { sound } = unit
    const enough = log + hope - least
    const missed = missedIn(model, unit, faults, enough)
    if (missed > enough) return { log: log + hope - missed, best: -Infinity, cut: true }
    hope -= sound.best - sound.log
    const fit = fitIn(model, unit, faults)
    log += fit.log - sound.log
    best += fit.best - sound.log
    if (log + hope < least) return { log: log + hope, best: -Infinity, cut: true }
  }
  return { log, best }
}
