import type { Scored } from '../core/hunt/pair-bounds'
import type { FaultHypothesis } from '../core/hunt/variants'
import { seeded } from './random-site'

export const UNITS = 40
/** Made-up cells after made-up readings: each shows in a few units and explains some and not others. */
export function cells(seed: number, count: number): { list: Scored[]; best: Float64Array } {
  const random = seeded(seed)
  const best = new Float64Array(UNITS)
  const list = Array.from({ length: count }, (_, index): Scored => {
    const units = Array.from({ length: UNITS }, (_, u) => u).filter(() => random() < 0.08)
    const gains = units.map(() => 12 * random() - 6)
    units.forEach((u, k) => {
      best[u] = Math.max(best[u]!, gains[k]!)
    })
    const odds = -3 - 6 * random()
    const variant = { index, fault: index } as FaultHypothesis
    return {
      variant,
      units,
      gains,
      odds,
      log: odds + gains.reduce((s, g) => s + g, 0),
      reach: gains,
      tied: false,
      standsFor: [variant],
      extra: 0,
    }
  })
  return { list, best }
}

/** The pair's log if, in every unit where they meet, the one that changes more hides the other. */
export const hiddenOf = (s: Scored, t: Scored): number =>
  Array.from({ length: UNITS }, (_, u) => u).reduce((sum, u) => {
    const [g, h] = [s, t].map((c) => c.gains[c.units.indexOf(u)]) as [number | undefined, number | undefined]
    return sum + (g !== undefined && h !== undefined ? (Math.abs(g) >= Math.abs(h) ? g : h) : (g ?? 0) + (h ?? 0))
  }, s.odds + t.odds)
