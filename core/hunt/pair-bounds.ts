import { logSum } from './normal'
import type { Catalogue, Variant } from './variants'

/** Where the weighing of pairs stops; nats below the likeliest explanation. Against `EVERYTHING` the belief held is in hunt.test.ts and the bench (`pruningHeld`). */
export interface Pruning {
  /** A cell of a fault's grid takes part while it is so near the fault's best, and so many of them at most, over the likely range. */
  readonly likelyRange: number
  readonly cells: number
  /** Pairs that cannot reach so far are not worked out one by one: they count as if the one hid the other where they meet. */
  readonly faint: number
  /** Pairs that cannot reach so far are left out. */
  readonly leftOut: number
  /** Pairs worked out together after one reading, those that can reach farthest first. */
  readonly together: number
}
export const USUAL_PRUNING: Pruning = { likelyRange: 7, cells: 24, faint: 12, leftOut: 17, together: 6000 }
export const EVERYTHING: Pruning = { ...USUAL_PRUNING, cells: Infinity, faint: Infinity, leftOut: Infinity, together: Infinity }

/**
 * A cell of a fault after the readings. `gains` are what it explains better than "nothing", by its units; `tied` where its
 * figures tie several units in ohms together, whose gains do not simply add up: what they gain or lose by that is spread over
 * those units evenly. `slack`: what it may explain in a unit together with another fault, beyond its gain, where it links wires.
 * `extra` is the log-weight of cells that it stands for besides itself.
 */
export interface Scored { readonly variant: Variant; readonly log: number; readonly odds: number; readonly units: readonly number[]; readonly gains: readonly number[]; readonly tied: boolean; readonly slack: number; readonly extra: number }
/** Cells that show in the same units. */
export interface Signature { readonly units: readonly number[]; readonly mask: Uint32Array; readonly of: Scored[]; log: number; readonly most: number[]; odds: number }

/** The cells of every fault in its likely range; if those are many, the best by themselves and some of the others with the weight of all of those. */
export function likelyCells(catalogue: Catalogue, log: Float64Array, scored: (v: Variant) => Scored, { likelyRange, cells }: Pruning): Scored[] {
  return catalogue.faults.flatMap((f) => {
    let top = -Infinity
    for (const v of f.variants) top = Math.max(top, log[v.index]!)
    if (top === -Infinity) return [] // mended
    const near = f.variants.filter((v) => log[v.index]! >= top - likelyRange)
    if (near.length <= cells) return near.map(scored)
    near.sort((a, b) => log[b.index]! - log[a.index]!)
    const best = near.slice(0, cells / 2)
    const rest = near.slice(best.length)
    const chosen = Array.from({ length: cells - best.length }, (_, i) => scored(rest[Math.floor((i * rest.length) / (cells - best.length))]!))
    const missing = logSum(rest.map((v) => log[v.index]!)) - logSum(chosen.map((c) => c.log))
    return [...best.map(scored), ...chosen.map((c) => ({ ...c, log: c.log + missing, extra: missing }))]
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

/** What a cell gains in a unit at most, if the best that any does there is no less. */
const reachIn = (c: Scored, k: number): number => c.gains[k]! + c.slack

export const apart = (a: Uint32Array, b: Uint32Array): boolean => { for (let w = 0; w < a.length; w++) if ((a[w]! & b[w]!) !== 0) return false; return true }

/**
 * Every pair of cells that meet in a unit and whose bound is above `least`: their odds, what each gains at most where it is
 * alone, and the best that any fault does where they meet. Two that both explain little by themselves are passed over: together
 * they are taken to explain no more than their sum.
 */
export function meetings(signatures: readonly Signature[], best: Float64Array, least: number, meet: (s: Scored, t: Scored, bound: number) => void): void {
  const has = (mask: Uint32Array, u: number) => (mask[u >> 5]! & (1 << (u & 31))) !== 0
  const ranked = signatures.map((s) => {
    const cells = s.of.map((c) => ({ c, far: c.odds + c.extra + c.units.reduce((sum, u, k) => sum + Math.max(0, Math.min(reachIn(c, k), best[u]!)), 0) })).sort((x, y) => y.far - x.far)
    return { s, cells, far: cells[0]!.far }
  }).sort((x, y) => y.far - x.far)
  /** What those cells of a signature that can reach so far gain without what they share with another. */
  const alone = (one: (typeof ranked)[number], other: (typeof ranked)[number]) => {
    const sums: { c: Scored; far: number; sum: number }[] = []
    for (const { c, far } of one.cells) {
      if (far + other.far < least) break
      let sum = c.odds + c.extra
      for (let k = 0; k < c.units.length; k++) if (!has(other.s.mask, c.units[k]!)) sum += Math.min(reachIn(c, k), best[c.units[k]!]!)
      sums.push({ c, far, sum })
    }
    return sums
  }
  ranked.forEach((one, a) => {
    for (let b = a; b < ranked.length; b++) {
      const two = ranked[b]!
      if (one.far + two.far < least) break
      if (apart(one.s.mask, two.s.mask)) continue
      if (one.s.odds + two.s.odds + boundOf(one.s.units, one.s.most, two.s.units, two.s.most, best) < least) continue
      let shared = 0
      for (const u of one.s.units) if (has(two.s.mask, u)) shared += best[u]!
      const [mine, theirs] = [alone(one, two), alone(two, one)]
      for (const s of mine) for (const t of theirs) {
        if (s.far + t.far < least) break
        const bound = shared + s.sum + t.sum
        if (bound >= least && (a !== b || s.c.variant.index < t.c.variant.index)) meet(s.c, t.c, bound)
      }
    }
  })
}

/** What a pair can gain at most: each alone where it is alone, the best that any fault does where they meet. */
function boundOf(a: readonly number[], gainA: readonly number[], b: readonly number[], gainB: readonly number[], best: Float64Array): number {
  let sum = 0
  let i = 0
  let j = 0
  while (i < a.length || j < b.length) {
    const u = i < a.length ? a[i]! : Infinity
    const v = j < b.length ? b[j]! : Infinity
    sum += u === v ? best[u]! : u < v ? Math.min(gainA[i]!, best[u]!) : Math.min(gainB[j]!, best[v]!)
    if (u <= v) i++
    if (v <= u) j++
  }
  return sum
}

/** The gain of a pair if, where they meet, the one that changes more there hides the other. */
export function hiding(s: Scored, t: Scored): number {
  let sum = 0
  let i = 0
  let j = 0
  while (i < s.units.length || j < t.units.length) {
    const u = i < s.units.length ? s.units[i]! : Infinity
    const v = j < t.units.length ? t.units[j]! : Infinity
    const a = u <= v ? s.gains[i++]! : 0
    const b = v <= u ? t.gains[j++]! : 0
    sum += u === v ? (Math.abs(a) >= Math.abs(b) ? a : b) : a + b
  }
  return sum
}
