import { logSum } from './normal'
import type { Variant } from './variants'

/** A cell of a fault's grid takes part in pairs while it is within e⁻⁷ of the fault's best; the others add under a thousandth. */
const LIKELY_RANGE = 7
/** Cells of one fault that take part in pairs, over its likely range. */
const CELLS_IN_PAIRS = 12

/**
 * A cell of a fault after the readings. `gains` are what it explains better than "nothing", by its units; `tied` where its
 * figures tie several units in ohms together, whose gains do not simply add up. `extra` is the log-weight of cells that it stands for besides itself.
 */
export interface Scored { readonly variant: Variant; readonly log: number; readonly odds: number; readonly units: readonly number[]; readonly gains: readonly number[]; readonly tied: boolean; readonly extra: number }
/** Cells that show in the same units. */
export interface Signature { readonly units: readonly number[]; readonly mask: Uint32Array; readonly of: Scored[]; log: number; readonly most: number[]; odds: number }

/** A fault's cells in its likely range; if those are many, some evenly over the range carry the weight of all. */
export function likelyCells(singles: readonly Scored[]): Scored[] {
  const byFault = new Map<number, Scored[]>()
  for (const s of singles) { const l = byFault.get(s.variant.fault); if (l) l.push(s); else byFault.set(s.variant.fault, [s]) }
  return [...byFault.values()].flatMap((cells) => {
    const top = cells.reduce((m, c) => Math.max(m, c.log), -Infinity)
    const near = cells.filter((c) => c.log > top - LIKELY_RANGE).sort((a, b) => b.log - a.log)
    if (near.length <= CELLS_IN_PAIRS) return near
    const chosen = Array.from({ length: CELLS_IN_PAIRS }, (_, i) => near[Math.floor((i * near.length) / CELLS_IN_PAIRS)]!)
    const missing = logSum(near.map((c) => c.log)) - logSum(chosen.map((c) => c.log))
    return chosen.map((c) => ({ ...c, log: c.log + missing, extra: missing }))
  })
}

export function signaturesOf(cells: readonly Scored[], unitCount: number): Signature[] {
  const made = new Map<string, Signature>()
  for (const c of cells) {
    const key = c.units.join(',')
    if (!made.has(key)) {
      const mask = new Uint32Array(Math.max(1, Math.ceil(unitCount / 32)))
      for (const u of c.units) mask[u >> 5]! |= 1 << (u & 31)
      made.set(key, { units: c.units, mask, of: [], log: -Infinity, most: c.units.map(() => -Infinity), odds: -Infinity })
    }
    const s = made.get(key)!
    s.of.push(c)
    s.odds = Math.max(s.odds, c.odds + c.extra)
    c.units.forEach((_, k) => { s.most[k] = Math.max(s.most[k]!, reachIn(c, k)) })
  }
  for (const s of made.values()) s.log = logSum(s.of.map((c) => c.log))
  return [...made.values()]
}

/** Sharing a figure sharpens a unit's share by about as much as its spread is wider than a meter's: at most e³. */
const TIED_SLACK = 3
export const reachIn = (c: Scored, k: number): number => c.gains[k]! + (c.tied ? TIED_SLACK : 0)
export const reaches = (c: Scored): readonly number[] => (c.tied ? c.gains.map((g) => g + TIED_SLACK) : c.gains)

/** What a pair can gain at most: each alone where it is alone, the best that any fault does where they meet. */
export function boundOf(a: readonly number[], gainA: readonly number[], b: readonly number[], gainB: readonly number[], best: Float64Array): number {
  let [sum, i, j] = [0, 0, 0]
  while (i < a.length || j < b.length) {
    const [u, v] = [i < a.length ? a[i]! : Infinity, j < b.length ? b[j]! : Infinity]
    if (u === v) { sum += best[u]!; i++; j++ } else if (u < v) sum += Math.min(gainA[i++]!, best[u]!)
    else sum += Math.min(gainB[j++]!, best[v]!)
  }
  return sum
}

/** The gain of a pair if, where they meet, the one that changes more there hides the other. */
export function hiding(s: Scored, t: Scored): number {
  let [sum, i, j] = [0, 0, 0]
  while (i < s.units.length || j < t.units.length) {
    const [u, v] = [s.units[i] ?? Infinity, t.units[j] ?? Infinity]
    const [a, b] = [s.gains[i] ?? 0, t.gains[j] ?? 0]
    sum += u === v ? (Math.abs(a) >= Math.abs(b) ? a : b) : u < v ? a : b
    if (u <= v) i++
    if (v <= u) j++
  }
  return sum
}
