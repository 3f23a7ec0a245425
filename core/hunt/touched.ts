import type { Explanation } from './beliefs'
import { leadsOn, type Catalogue, type Fault, type FaultHypothesis } from './catalogue'
import { isAsGood } from './inference'
import type { Predictor } from './memoize'
import type { TakenTest } from './taken'
import type { CoilPriors } from './weigh'

/** Explanations that are looked at, the likeliest of those that name what was mended. */
const MOST_LOOKED_AT = 8
/** Where less than this part of what they hold shows it in a test, it was not there. */
const LEAST = 0.05

/**
 * Whether faults that were mended had shown in a test: by themselves, or beside another that leads on to them, as a
 * leak does, through which a lead's reading to earth goes on through its coil and every other.
 * @param told what explained the readings before it was mended, the likeliest first
 */
export function touchedBy(
  { catalogue, predictor, coils }: { catalogue: Catalogue; predictor: Predictor; coils: CoilPriors },
  mended: readonly Fault[],
  told: readonly Explanation[],
): (test: TakenTest) => boolean {
  const numbers = new Set(mended.map((f) => f.index))
  const isMended = (v: FaultHypothesis) => numbers.has(v.fault)
  const looked = told.filter((e) => e.faults.some(isMended)).slice(0, MOST_LOOKED_AT)
  const whole = looked.reduce((s, e) => s + e.p, 0)
  const led = looked.flatMap(({ faults, p }) => {
    const without = faults.filter((v) => !isMended(v))
    return without.some((v) => leadsOn(catalogue.faults[v.fault]!)) ? [{ faults, without, p }] : []
  })
  const shows = (test: TakenTest, faults: readonly FaultHypothesis[], without: readonly FaultHypothesis[]): boolean => {
    const [was, is] = [predictor.under(test, faults), predictor.under(test, without)]
    return was !== null && is !== null && !isAsGood(was, is, coils)
  }
  return (test) =>
    mended.some((f) => predictor.mayAffect(test, f)) ||
    led.reduce((s, e) => s + (shows(test, e.faults, e.without) ? e.p : 0), 0) > LEAST * whole
}
