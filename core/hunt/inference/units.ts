import type { Observation } from '../beliefs'
import type { Predictor } from '../memoize'
import type { Prediction } from '../predict'
import type { FaultHypothesis } from '../variants'
import type { Model } from './classes'
import { fitOf, type Fit, type Weighable } from './likelihood'

/** A fault may also blur what it explains less than is foreseen without it, nats. */
export const SHARPER_NATS = 0.7

/** How readings fit some faults. */
export function fitUnder(model: Model, readings: readonly Observation[], faults: readonly FaultHypothesis[]): Fit {
  const { predictor } = model
  const weighables = readings.map(({ test, value }): Weighable => {
    const seen = predictor.under(test, faults)
    return { value, seen, slots: slotsOf(predictor, test, faults, seen) }
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
function slotsOf(
  predictor: Predictor,
  test: Observation['test'],
  faults: readonly FaultHypothesis[],
  seen: Prediction | null,
): readonly number[] {
  const ohms = seen?.kind === 'either' ? seen.well : seen
  if (ohms?.kind !== 'ohms' || ohms.figures.length === 0) return []
  const felt = faults.length === 1 ? faults : predictor.activeFaults(test, faults)
  const slots = felt.flatMap((v) => {
    const at = faults.indexOf(v)
    return Array.from({ length: v.leak ? 1 : v.shifted.length }, (_, k) => 4 * at + k)
  })
  return slots.length === ohms.figures.length ? slots : ohms.figures.map((_, k) => -1 - k)
}

/** Readings that are weighed together, and how they fit where nothing is wrong. */
export interface Unit {
  readonly readings: readonly Observation[]
  readonly sound: Fit
}
export const isOhms = ({ value }: Observation): boolean => value.kind === 'ohm' || value.kind === 'open'
export function unitsOf(model: Model, readings: readonly Observation[]): Unit[] {
  const unit = (list: readonly Observation[]): Unit => ({ readings: list, sound: fitUnder(model, list, []) })
  const ohms = readings.filter(isOhms)
  return [...(ohms.length > 0 ? [unit(ohms)] : []), ...readings.filter((r) => !isOhms(r)).map((r) => unit([r]))]
}
/**
 * Units of groups that a fault leads to each other: readings in ohms have coils in common then. Where nothing is wrong
 * they fit as they do in their groups, so that what they are held against is the same.
 */
export function linkedUnits(groups: readonly { readonly units: readonly Unit[] }[]): Unit[] {
  const units = groups.flatMap((g) => g.units)
  const ohms = units.filter((u) => isOhms(u.readings[0]!))
  const sum = (of: (f: Fit) => number) => ohms.reduce((s, u) => s + of(u.sound), 0)
  const together: Unit = {
    readings: ohms.flatMap((u) => u.readings),
    sound: { log: sum((f) => f.log), best: sum((f) => f.best) },
  }
  return [...(ohms.length > 0 ? [together] : []), ...units.filter((u) => !ohms.includes(u))]
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
): Fit {
  let [log, best] = [0, 0]
  let hope = units.reduce((s, { sound }) => s + sound.best - sound.log, 0)
  for (const { readings, sound } of units) {
    hope -= sound.best - sound.log
    const fit = fitUnder(model, readings, faults)
    log += fit.log - sound.log
    best += fit.best - sound.log
    if (log + hope + SHARPER_NATS < least) return { log: log + hope, best: -Infinity }
  }
  return { log, best }
}
