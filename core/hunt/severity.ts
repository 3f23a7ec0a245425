import type { Observation } from './beliefs'
import type { Faults, FaultHypothesis } from './catalogue'
import { slotOf, slotsOf } from './inference'
import type { Predictor } from './memoize'
import { blurAt } from './predict'
import type { CoilPriors } from './weigh'

/** A reading that moves by less than this for an ohm of the fault tells nothing of it. */
const LEAST_SLOPE = 0.2

/**
 * The ohms of a fault that fit readings best, the others of an explanation being there: least squares about its cell,
 * each reading by what blurs it. The cell's own where none tells; null of a fault that has no ohms.
 */
export function severity_ohm(
  predictor: Predictor,
  coils: CoilPriors,
  readings: readonly Observation[],
  faults: Faults,
  v: FaultHypothesis,
): number | null {
  if (v.ohm === null || v.sd_ohm === null) return v.ohm
  let [sum, weights] = [0, 0]
  for (const { test, value } of readings) {
    const seen = value.kind === 'ohm' ? predictor.under(test, faults) : null
    if (seen?.kind !== 'ohms' || value.kind !== 'ohm') continue
    const figure = seen.figures[slotsOf(predictor, test, faults, seen).indexOf(slotOf(faults, v))]
    const slope = (figure ?? 0) / v.sd_ohm
    if (Math.abs(slope) < LEAST_SLOPE) continue
    const off = value.ohm - seen.mean - seen.coils.reduce((s, [d, c]) => s + c * coils(d).mean, 0)
    const blur = Math.hypot(blurAt(seen, value.ohm), ...seen.coils.map(([d, c]) => c * coils(d).sd))
    const weight = (slope / blur) ** 2
    sum += weight * (v.ohm + off / slope)
    weights += weight
  }
  return weights > 0 ? Math.max(0, sum / weights) : v.ohm
}
