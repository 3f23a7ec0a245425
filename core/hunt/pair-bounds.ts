import { logSum } from './normal'
import type { Catalogue, FaultHypothesis } from './variants'

/**
 * Where the weighing of pairs stops; nats below what all explanations hold, as far as it is known before pairs are
 * weighed. Against `EVERYTHING` the belief held is in hunt.test.ts and the bench (`pruningHeld`).
 */
export interface Pruning {
  /** So many cells of a fault's grid take part at most. */
  readonly cells: number
  /**
   * Pairs that cannot reach so far are not worked out one by one: they count as if the one hid the other where they
   * meet.
   */
  readonly faint: number
  /** Pairs that cannot reach so far are left out. */
  readonly leftOut: number
  /** So far below, what counts as if the one hid the other adds nothing, however many there are. */
  readonly negligible: number
  /** Pairs worked out together after one reading at most, those first of which most may be wrong. */
  readonly together: number
}
export const USUAL_PRUNING: Pruning = { cells: 20, faint: 12, leftOut: 17, negligible: 30, together: 6000 }
export const EVERYTHING: Pruning = {
  ...USUAL_PRUNING,
  cells: Infinity,
  faint: Infinity,
  leftOut: Infinity,
  negligible: Infinity,
  together: Infinity,
}

/**
 * A cell of a fault after the readings. `gains` are what it explains better than "nothing", by its units; `tied`
 * where its figures tie several units in ohms together, whose gains do not simply add up: what they gain or lose by
 * that is spread over those units evenly. `reach`: what it may explain in a unit together with another fault, which
 * can spare it what it loses by the tie, or hide it where it links wires. `standsFor`: the cells whose weight it
 * bears, itself among them; `extra` is the log of that weight against its own.
 */
export interface Scored {
  readonly variant: FaultHypothesis
  readonly log: number
  readonly odds: number
  readonly units: readonly number[]
  readonly gains: readonly number[]
  readonly reach: readonly number[]
  readonly tied: boolean
  readonly standsFor: readonly FaultHypothesis[]
  readonly extra: number
}
/** Cells that show in the same units. */
export interface Signature {
  readonly units: readonly number[]
  readonly mask: Uint32Array
  readonly of: Scored[]
  log: number
}

/**
 * The cells of every fault; if those are many, the best by themselves and of the others some of each size, each with
 * the weight of its neighbours.
 */
export function chosenCells(
  catalogue: Catalogue,
  log: Float64Array,
  scored: (v: FaultHypothesis) => Scored,
  { cells }: Pruning,
): Scored[] {
  return catalogue.faults.flatMap((f) => {
    const open = f.variants.filter((v) => log[v.index]! > -Infinity) // none, where it is mended
    if (open.length <= cells) return open.map(scored)
    const ranked = open.sort((a, b) => log[b.index]! - log[a.index]!)
    const best = ranked.slice(0, Math.floor(cells / 5))
    const sizes = new Map<number | null, FaultHypothesis[]>()
    for (const v of ranked.slice(best.length)) {
      const size = sizes.get(v.ohm)
      if (size) size.push(v)
      else sizes.set(v.ohm, [v])
    }
    const parts = Math.max(1, Math.floor((cells - best.length) / sizes.size))
    return [
      ...best.map(scored),
      ...[...sizes.values()].flatMap((size) =>
        equalParts(size, parts).map((standsFor) => {
          const middle = scored(standsFor[standsFor.length >> 1]!)
          const extra = logSum(standsFor.map((v) => log[v.index]!)) - middle.log
          return { ...middle, log: middle.log + extra, extra, standsFor }
        }),
      ),
    ]
  })
}

const equalParts = <T>(list: readonly T[], count: number): T[][] => {
  const n = Math.min(count, list.length)
  return Array.from({ length: n }, (_, i) =>
    list.slice(Math.floor((i * list.length) / n), Math.floor(((i + 1) * list.length) / n)),
  )
}

export function signaturesOf(cells: readonly Scored[], unitCount: number): Signature[] {
  const made = new Map<string, Signature>()
  for (const c of cells) {
    const key = c.units.join(',')
    if (!made.has(key)) {
      const mask = new Uint32Array(Math.max(1, Math.ceil(unitCount / 32)))
      for (const u of c.units) mask[u >> 5]! |= 1 << (u & 31)
      made.set(key, { units: c.units, mask, of: [], log: -Infinity })
    }
    made.get(key)!.of.push(c)
  }
  for (const s of made.values()) s.log = logSum(s.of.map((c) => c.log))
  return [...made.values()]
}

export const apart = (a: Uint32Array, b: Uint32Array): boolean => {
  for (let w = 0; w < a.length; w++) if ((a[w]! & b[w]!) !== 0) return false
  return true
}

/**
 * Every pair of cells that meet in a unit and whose bound is above `least`: their odds, what each gains at most where
 * it is alone, and the best that any fault does where they meet. Two that both explain little by themselves are
 * passed over: together they are taken to explain no more than their sum. `hiding` is the pair's log if the one that
 * changes more hides the other there.
 */
export function meetings(
  signatures: readonly Signature[],
  best: Float64Array,
  least: number,
  meet: (s: Scored, t: Scored, bound: number, hiding: number) => void,
): void {
  const ranked = signatures.map((s) => rankedOf(s, best)).sort((x, y) => y.far[0]! - x.far[0]!)
  const longest = signatures.reduce((m, s) => Math.max(m, s.of.length), 0)
  const [mine, theirs, inOne, inTwo] = [
    new Float64Array(longest),
    new Float64Array(longest),
    new Int32Array(best.length),
    new Int32Array(best.length),
  ]
  ranked.forEach((one, a) => {
    for (let b = a; b < ranked.length; b++) {
      const two = ranked[b]!
      if (one.far[0]! + two.far[0]! < least) break
      if (apart(one.mask, two.mask)) continue
      // What both show in counts once, as the best that any does there.
      const [few, many, inFew, inMany] =
        one.units.length <= two.units.length ? [one, two, inOne, inTwo] : [two, one, inTwo, inOne]
      let [both, shared] = [0, 0]
      for (let k = 0; k < few.units.length; k++) {
        const l = many.placeOf[few.units[k]!]!
        if (l < 0) continue
        shared += best[few.units[k]!]!
        inFew[both] = k
        inMany[both++] = l
      }
      const m = withoutShared(one, inOne, both, least - two.far[0]!, mine)
      const n = withoutShared(two, inTwo, both, least - one.far[0]!, theirs)
      let most = -Infinity
      for (let j = 0; j < n; j++) most = Math.max(most, theirs[j]!)
      for (let i = 0; i < m; i++) {
        if (shared + mine[i]! + most < least) continue
        for (let j = 0; j < n; j++) {
          if (one.far[i]! + two.far[j]! < least) break
          const bound = shared + mine[i]! + theirs[j]!
          if (bound < least) continue
          const [s, t] = [one.cells[i]!, two.cells[j]!]
          if (a === b && s.variant.index >= t.variant.index) continue
          let hiding = one.sum[i]! + two.sum[j]!
          for (let k = 0; k < both; k++) {
            const [g, h] = [s.gains[inOne[k]!]!, t.gains[inTwo[k]!]!]
            hiding -= Math.abs(g) >= Math.abs(h) ? h : g
          }
          meet(s, t, bound, hiding)
        }
      }
    }
  })
}

/**
 * A signature's cells by how far they reach. By cell: `reach` in each unit, `bound` over all units, `far` without
 * those where it would lose, and `sum` of what it gains.
 */
interface Ranked {
  readonly units: readonly number[]
  readonly mask: Uint32Array
  readonly placeOf: Int16Array
  readonly cells: readonly Scored[]
  readonly reach: readonly Float64Array[]
  readonly bound: Float64Array
  readonly far: Float64Array
  readonly sum: Float64Array
}
function rankedOf({ units, mask, of }: Signature, best: Float64Array): Ranked {
  const made = of
    .map((c) => {
      const own = c.odds + c.extra
      const reach = Float64Array.from(units, (u, k) => Math.min(c.reach[k]!, best[u]!))
      return {
        c,
        reach,
        bound: reach.reduce((s, r) => s + r, own),
        far: reach.reduce((s, r) => s + Math.max(0, r), own),
        sum: c.gains.reduce((s, g) => s + g, own),
      }
    })
    .sort((x, y) => y.far - x.far)
  const placeOf = new Int16Array(best.length).fill(-1)
  units.forEach((u, k) => {
    placeOf[u] = k
  })
  return {
    units,
    mask,
    placeOf,
    cells: made.map((m) => m.c),
    reach: made.map((m) => m.reach),
    bound: Float64Array.from(made, (m) => m.bound),
    far: Float64Array.from(made, (m) => m.far),
    sum: Float64Array.from(made, (m) => m.sum),
  }
}

/** What the cells that reach so far gain at most without some of their units; how many they are. */
function withoutShared(
  { reach, bound, far }: Ranked,
  places: Int32Array,
  count: number,
  least: number,
  into: Float64Array,
): number {
  let n = 0
  for (; n < reach.length && far[n]! >= least; n++) {
    let left = bound[n]!
    for (let k = 0; k < count; k++) left -= reach[n]![places[k]!]!
    into[n] = left
  }
  return n
}

/** Units of either in order, with the place of each in both lists; -1 where it is not in one. */
export function eachUnit(
  one: readonly number[],
  other: readonly number[],
  visit: (unit: number, k: number, l: number) => void,
): void {
  let [k, l] = [0, 0]
  while (k < one.length || l < other.length) {
    const u = k < one.length ? one[k]! : Infinity
    const v = l < other.length ? other[l]! : Infinity
    visit(Math.min(u, v), u <= v ? k++ : -1, v <= u ? l++ : -1)
  }
}
