import type { Explanation } from '../beliefs'
import type { Catalogue, Fault } from '../catalogue'

/** Explanations that the choice of a test looks at: those that hold nearly all of the belief. */
const LOOKED_AT = 0.998
const MOST_LOOKED_AT = 240

/**
 * Explanations by the part that is to be mended first: of two faults the one that is believed more, those that all
 * explanations have left out. Which second one there may be is asked once the first is mended. `keys`: null is "nothing", or none of those asked for; `faults`:
 * every fault that is among the explanations.
 */
export interface Targets {
  readonly of: Int32Array
  readonly count: number
  readonly weights: Float64Array
  readonly keys: readonly (string | null)[]
  readonly faults: readonly Fault[]
}
/** `among`: keys of the parts to tell apart, where not all of them are. */
export function targetsOf(
  catalogue: Catalogue,
  looked: readonly Explanation[],
  among: ReadonlySet<string> | null = null,
): Targets {
  const believed = new Map<string, number>()
  const faults = new Set<Fault>()
  const whole = looked.reduce((s, e) => s + e.p, 0)
  const keysOf = (e: Explanation) =>
    [...new Set(e.faults.map((v) => catalogue.faults[v.fault]!.key))].filter((key) => among?.has(key) ?? true)
  for (const e of looked) {
    for (const v of e.faults) faults.add(catalogue.faults[v.fault]!)
    for (const key of keysOf(e)) believed.set(key, (believed.get(key) ?? 0) + e.p)
  }
  for (const [key, p] of believed) if (p > whole * (1 - 1e-9)) believed.delete(key)
  const numbers = new Map<string | null, number>()
  const keys: (string | null)[] = []
  const of = Int32Array.from(looked, (e) => {
    const inDoubt = keysOf(e).filter((key) => believed.has(key))
    const first = inDoubt.sort((a, b) => believed.get(b)! - believed.get(a)! || (a < b ? -1 : 1))[0] ?? null
    if (!numbers.has(first)) {
      numbers.set(first, numbers.size)
      keys.push(first)
    }
    return numbers.get(first)!
  })
  const weights = new Float64Array(numbers.size)
  looked.forEach((e, i) => {
    weights[of[i]!]! += e.p
  })
  return { of, count: numbers.size, weights, keys, faults: [...faults] }
}

export function lookedAt(explanations: readonly Explanation[]): Explanation[] {
  const chosen: Explanation[] = []
  let sum = 0
  for (const e of explanations) {
    if (chosen.length >= MOST_LOOKED_AT || sum > LOOKED_AT) break
    chosen.push(e)
    sum += e.p
  }
  return sum === 0 ? [] : chosen.map((e) => ({ ...e, p: e.p / sum }))
}
