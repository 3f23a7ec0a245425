import type { FieldTest, ReadingValue } from '../record'
import type { DeviceId } from '../site'
import type { Foreseen, Foresight } from './foresee'
import { logSum } from './normal'
import { boundOf, hiding, likelyCells, reaches, reachIn, signaturesOf, type Scored, type Signature } from './pair-bounds'
import type { Catalogue, Variant } from './variants'
import { weighAlone, weighTogether, type CoilPriors, type Weighed } from './weigh'

/** A reading as a hunt takes it: what was tried and what it gave, ohms after the meter's own leads are taken off. */
export interface Taken { readonly test: FieldTest; readonly value: ReadingValue }

/** One explanation: no fault, one, or two, with its part of the belief. */
export interface Explanation { readonly faults: readonly Variant[]; readonly p: number }

export interface Beliefs {
  /** How likely it is that a part is at fault, by the part's key; parts without any belief are left out. */
  readonly parts: ReadonlyMap<string, number>
  /** How likely it is that nothing is at fault. */
  readonly nothing: number
  /** Explanations that together hold nearly all of the belief, the likeliest first. */
  readonly explanations: readonly Explanation[]
  /** Log-likelihood of the best explanation over what sound readings would have: below `STRAINED` the record itself is in doubt. */
  readonly strain: number
}

/** How many faults there may be. */
export interface CountOdds { readonly none: number; readonly one: number; readonly two: number }

/** Pairs whose belief cannot reach e⁻⁹ of the likeliest explanation's are not worked out one by one; they count as if the one hid the other where they meet. */
const PRUNED = 9
/** Below this they are left out: e⁻¹⁶ each. Against weighing every pair outright the belief held is 99.9 % (hunt.test.ts). */
const LEFT_OUT = 16
/** Pairs worked out together after one reading, those that can reach farthest first. */
const PAIRS_TOGETHER = 1500
/** Single faults from which the likeliest pairs are listed, and explanations that are kept. */
const [LISTED, KEPT_EXPLANATIONS] = [60, 400]
/** A single fault with less of the belief than this is listed once, by its likeliest cell. */
const ONE_CELL = Math.log(0.01)

/** A reading with what it would be if nothing were wrong. */
interface Held { readonly test: FieldTest; readonly value: ReadingValue; readonly base: Foreseen; readonly baseOhms: Extract<Foreseen, { kind: 'ohms' }> | null }
/** Readings that must be weighed together, with the log of "nothing wrong". `id` is another as soon as a reading joins. */
interface Unit { readonly id: number; readonly readings: readonly number[]; readonly base: number; readonly ohms: boolean }
/**
 * The belief over all single faults on their grids and all pairs, after some readings. Everything is a ratio to "nothing
 * wrong": readings that a fault does not touch cancel. Readings in ohms are weighed in units of those that share coils, all
 * else by itself. A pair whose faults show in different units is the product of its two; others are worked out together
 * where a bound says that they can matter.
 */
export class Weighing {
  private readonly taken: Held[] = []
  private readonly touchedBy: Set<number>[] = []
  private supply_V: number | null = null
  private readonly foreseen = new Map<number, Map<number, Foreseen | null>>()
  private readonly foreseenPairs = new Map<number, Foreseen | null>()
  private readonly gains = new Map<number, Map<number, number>>()
  private readonly unitIds = new Map<string, number>()

  constructor(private readonly catalogue: Catalogue, private readonly foresight: Foresight, private readonly coils: CoilPriors, private readonly nominal_V: number, private readonly count: CountOdds) {}

  /** Adds a reading; one whose test says nothing here is left out. */
  add(reading: Taken): boolean {
    const base = this.foresight.base(reading.test)
    if (base === null) return false
    if (reading.test.kind === 'supply' && reading.value.kind === 'volt') { this.supply_V = reading.value.volt; this.gains.clear() } // all volts are read against it
    this.taken.push({ ...reading, base, baseOhms: weighAlone(base, reading.value, this.supply).ohms })
    this.touchedBy.push(new Set(this.catalogue.variants.filter((v) => this.foresight.touches(reading.test, v)).map((v) => v.index)))
    return true
  }

  private get supply() { return { read: this.supply_V, nominal: this.nominal_V } }

  /** What a reading's test would show under one fault, worked out once. */
  private seen(r: number, v: Variant): Foreseen | null {
    if (!this.touchedBy[r]!.has(v.index)) return this.taken[r]!.base
    const row = this.foreseen.get(r) ?? this.foreseen.set(r, new Map()).get(r)!
    if (!row.has(v.index)) row.set(v.index, this.foresight.under(this.taken[r]!.test, [v]))
    return row.get(v.index)!
  }

  private seenPair(r: number, i: Variant, j: Variant): Foreseen | null {
    const [byI, byJ] = [this.touchedBy[r]!.has(i.index), this.touchedBy[r]!.has(j.index)]
    if (!byI || !byJ) return byI ? this.seen(r, i) : this.seen(r, j)
    const n = this.catalogue.variants.length
    const key = (r * n + i.index) * n + j.index
    if (!this.foreseenPairs.has(key)) this.foreseenPairs.set(key, this.foresight.under(this.taken[r]!.test, [i, j]))
    return this.foreseenPairs.get(key)!
  }

  /** Log-likelihood of some readings under a hypothesis. Figures of a fault are shared by all its readings. */
  private logOf(readings: readonly number[], seenOf: (r: number) => Foreseen | null, offsetOf: (r: number) => number): number {
    let log = 0
    const together: Weighed[] = []
    for (const r of readings) {
      const seen = seenOf(r)
      if (seen === null) continue
      const { value } = this.taken[r]!
      const weighed = weighAlone(seen, value, this.supply)
      log += weighed.log
      if (weighed.ohms && value.kind === 'ohm') together.push({ ohm: value.ohm, seen: weighed.ohms, offset: offsetOf(r) })
    }
    return together.length === 0 ? log : log + weighTogether(together, this.coils)
  }

  /** Readings in ohms that share a coil as recorded are one unit; every other reading is one by itself. */
  private units(): { units: Unit[]; unitOf: Int32Array } {
    const parent = this.taken.map((_, r) => r)
    const root = (r: number): number => (parent[r] === r ? r : (parent[r] = root(parent[r]!)))
    const byCoil = new Map<DeviceId, number>()
    this.taken.forEach(({ baseOhms }, r) => baseOhms?.coils.forEach(([d]) => { const at = byCoil.get(d); if (at === undefined) byCoil.set(d, r); else parent[root(r)] = root(at) }))
    const groups = new Map<number, number[]>()
    this.taken.forEach((_, r) => groups.set(root(r), [...(groups.get(root(r)) ?? []), r]))
    const unitOf = new Int32Array(this.taken.length)
    const units = [...groups.values()].map((readings, u): Unit => {
      for (const r of readings) unitOf[r] = u
      const key = readings.join(',')
      if (!this.unitIds.has(key)) this.unitIds.set(key, this.unitIds.size)
      return { id: this.unitIds.get(key)!, readings, base: this.logOf(readings, (r) => this.taken[r]!.base, () => 0), ohms: readings.some((r) => this.taken[r]!.base.kind === 'ohms') }
    })
    return { units, unitOf }
  }

  /** What a fault explains better than "nothing" in one unit by itself. */
  private gainIn(unit: Unit, v: Variant): number {
    const row = this.gains.get(v.index) ?? this.gains.set(v.index, new Map()).get(v.index)!
    const known = row.get(unit.id)
    if (known !== undefined) return known
    const gain = this.logOf(unit.readings, (r) => this.seen(r, v), () => 0) - unit.base
    row.set(unit.id, gain)
    return gain
  }

  beliefs(): Beliefs {
    const { catalogue, count } = this
    const { units, unitOf } = this.units()
    const priorSum = catalogue.faults.reduce((s, f) => s + f.prior, 0)
    const touched = new Map<number, number[]>()
    this.touchedBy.forEach((set, r) => { for (const v of set) { const list = touched.get(v); const u = unitOf[r]!; if (!list) touched.set(v, [u]); else if (!list.includes(u)) list.push(u) } })
    for (const list of touched.values()) list.sort((a, b) => a - b)

    // Every single fault on its grid.
    const best = new Float64Array(units.length)
    const singles = catalogue.variants.map((variant): Scored => {
      const set = touched.get(variant.index) ?? NO_UNITS
      const odds = Math.log((catalogue.faults[variant.fault]!.prior / priorSum) * variant.share)
      const gains = set.map((u) => this.gainIn(units[u]!, variant))
      set.forEach((u, k) => { best[u] = Math.max(best[u]!, gains[k]!) })
      const tied = figuresOf(variant) > 0 && set.filter((u) => units[u]!.ohms).length > 1
      const gain = tied ? this.together(set, units, variant, null) : gains.reduce((s, g) => s + g, 0)
      return { variant, units: set, log: odds + gain, odds, gains, tied, extra: 0 }
    })
    const keyOf = (v: Variant) => catalogue.faults[v.fault]!.key
    const [logNone, logOne] = [Math.log(count.none || 1e-300), Math.log(count.one || 1e-300)]
    const top = singles.reduce((m, s) => Math.max(m, logOne + s.log), logNone)
    const parts = new Map<string, number[]>()
    const keep = (key: string, log: number) => { const list = parts.get(key); if (list) list.push(log); else parts.set(key, [log]) }
    for (const s of singles) keep(keyOf(s.variant), logOne + s.log)
    const found: { faults: readonly Variant[]; log: number }[] = [{ faults: [], log: logNone }]
    const listed = [...singles].sort((a, b) => b.log - a.log)
    const cells = new Map<number, Scored[]>()
    for (const s of listed) { const l = cells.get(s.variant.fault); if (l) l.push(s); else cells.set(s.variant.fault, [s]) }
    for (const list of cells.values()) {
      const log = logOne + logSum(list.map((s) => s.log))
      if (log < top - PRUNED) continue
      if (log < top + ONE_CELL) found.push({ faults: [list[0]!.variant], log })
      else for (const s of list) if (logOne + s.log > top - PRUNED) found.push({ faults: [s.variant], log: logOne + s.log })
    }
    const pairs: number[] = []
    if (count.two > 0) this.pairs({ singles, listed, units, best, top, logTwo: Math.log(2 * count.two), keyOf, keep, pairs, found })

    const total = logSum([logNone, ...singles.map((s) => logOne + s.log), ...pairs])
    const believed = new Map<string, number>()
    for (const [key, logs] of parts) { const p = Math.exp(logSum(logs) - total); if (p > 1e-6) believed.set(key, Math.min(1, p)) }
    const explanations = found.filter((f) => f.log > total - PRUNED).sort((a, b) => b.log - a.log).slice(0, KEPT_EXPLANATIONS).map((f) => ({ faults: f.faults, p: Math.exp(f.log - total) }))
    return { parts: believed, nothing: Math.exp(logNone - total), explanations, strain: this.strainOf(explanations[0]?.faults ?? []) }
  }

  /** Gain of one or two faults over all of some units at once. */
  private together(set: readonly number[], units: readonly Unit[], i: Variant, j: Variant | null): number {
    const readings = set.flatMap((u) => units[u]!.readings)
    const base = set.reduce((s, u) => s + units[u]!.base, 0)
    return (j === null ? this.logOf(readings, (r) => this.seen(r, i), () => 0)
      : this.logOf(readings, (r) => this.seenPair(r, i, j), (r) => (this.touchedBy[r]!.has(i.index) ? 0 : figuresOf(i)))) - base
  }

  /** Adds the belief in all pairs: `keep` by part, `pairs` as a whole, and the likeliest to `found`. */
  private pairs({ singles, listed, units, best, top, logTwo, keyOf, keep, pairs, found }: {
    singles: readonly Scored[]; listed: readonly Scored[]; units: readonly Unit[]; best: Float64Array; top: number; logTwo: number
    keyOf: (v: Variant) => string; keep: (key: string, log: number) => void; pairs: number[]; found: { faults: readonly Variant[]; log: number }[]
  }): void {
    const signatures = signaturesOf(likelyCells(singles), units.length)
    const apart = (a: Uint32Array, b: Uint32Array) => { for (let w = 0; w < a.length; w++) if ((a[w]! & b[w]!) !== 0) return false; return true }

    // Faults in different units: each signature's parts with the whole of all signatures apart from it, its own part left out.
    const scale = signatures.reduce((m, s) => Math.max(m, s.log), -Infinity)
    const weight = Float64Array.from(signatures, (s) => Math.exp(s.log - scale))
    const inPart = new Map<string, { at: number; weight: number }[]>()
    const own = signatures.map((s, at) => {
      const sums = new Map<string, number>()
      for (const c of s.of) sums.set(keyOf(c.variant), (sums.get(keyOf(c.variant)) ?? 0) + Math.exp(c.log - scale))
      for (const [key, w] of sums) { const list = inPart.get(key); if (list) list.push({ at, weight: w }); else inPart.set(key, [{ at, weight: w }]) }
      return sums
    })
    signatures.forEach((one, a) => {
      let rest = 0
      const others: number[] = []
      signatures.forEach((two, b) => { if (apart(one.mask, two.mask)) { rest += weight[b]!; others.push(b) } })
      for (const [key, w] of own[a]!) {
        const mine = inPart.get(key)!.filter((p) => p.at === a ? one.units.length === 0 : apart(one.mask, signatures[p.at]!.mask))
        const same = mine.reduce((s, p) => s + p.weight, 0)
        // Where its own part is most of the rest, the difference would be rounding: added up anew.
        const left = same < 0.5 * rest ? rest - same : others.reduce((s, b) => { let sum = 0; for (const [k, x] of own[b]!) if (k !== key) sum += x; return s + sum }, 0)
        if (w * left <= 0) continue
        const log = logTwo + Math.log(w) + Math.log(left) + 2 * scale
        if (log < top - PRUNED - 12) continue
        keep(key, log)
        pairs.push(log - Math.LN2) // every pair comes up from both of its sides
      }
    })
    const most = listed.slice(0, LISTED)
    const masks = new Map(signatures.flatMap((s) => s.of.map((c) => [c.variant.index, s.mask] as const)))
    most.forEach((s, a) => most.slice(a + 1).forEach((t) => {
      const [p, q] = [masks.get(s.variant.index), masks.get(t.variant.index)]
      const log = logTwo + s.log + t.log
      if (p && q && apart(p, q) && log > top - PRUNED && keyOf(s.variant) !== keyOf(t.variant)) found.push({ faults: [s.variant, t.variant], log })
    }))

    // Faults that meet in a unit: those whose bound can reach the others are worked out.
    const meeting: { s: Scored; t: Scored; reach: number }[] = []
    const faintly = new Map<string, number>()
    let faintAll = 0
    const faint = (s: Scored, t: Scored, reach: number): void => {
      const w = Math.exp(Math.min(reach, logTwo + s.odds + s.extra + t.odds + t.extra + hiding(s, t)) - top)
      for (const k of [keyOf(s.variant), keyOf(t.variant)]) faintly.set(k, (faintly.get(k) ?? 0) + w)
      faintAll += w
    }
    const farthest = (s: Signature) => s.odds + s.units.reduce((sum, u, k) => sum + Math.max(0, Math.min(s.most[k]!, best[u]!)), 0)
    const far = new Map<Scored, number>()
    for (const sig of signatures) {
      for (const c of sig.of) far.set(c, c.odds + c.extra + c.units.reduce((sum, u, k) => sum + Math.max(0, Math.min(reachIn(c, k), best[u]!)), 0))
      sig.of.sort((x, y) => far.get(y)! - far.get(x)!)
    }
    const ranked = signatures.map((s) => ({ s, q: farthest(s) })).sort((x, y) => y.q - x.q)
    ranked.forEach(({ s: one, q }, a) => {
      for (let b = a; b < ranked.length; b++) {
        if (logTwo + q + ranked[b]!.q < top - LEFT_OUT) break
        const two = ranked[b]!.s
        if (apart(one.mask, two.mask)) continue
        const ahead = logTwo + one.odds + two.odds + boundOf(one.units, one.most, two.units, two.most, best)
        if (ahead < top - LEFT_OUT) continue
        pairing: for (const s of one.of) for (const t of two.of) {
          if (logTwo + far.get(s)! + far.get(t)! < top - LEFT_OUT) { if (t === two.of[0]) break pairing; break }
          if ((a === b && s.variant.index >= t.variant.index) || keyOf(s.variant) === keyOf(t.variant)) continue
          const reach = logTwo + s.odds + s.extra + t.odds + t.extra + boundOf(s.units, reaches(s), t.units, reaches(t), best)
          if (reach >= top - PRUNED) meeting.push({ s, t, reach })
          else if (reach >= top - LEFT_OUT) faint(s, t, reach)
        }
      }
    })
    for (const [key, w] of faintly) keep(key, top + Math.log(w))
    if (faintAll > 0) pairs.push(top + Math.log(faintAll))
    meeting.sort((x, y) => y.reach - x.reach)
    meeting.forEach(({ s, t, reach }, n) => {
      const odds = logTwo + s.odds + s.extra + t.odds + t.extra
      // The many that reach least, once enough are worked out: as if the one hid the other where they meet.
      const log = n < PAIRS_TOGETHER ? odds + this.pairGain(s, t, units) : Math.min(reach, odds + hiding(s, t))
      keep(keyOf(s.variant), log)
      keep(keyOf(t.variant), log)
      pairs.push(log)
      if (log > top - PRUNED) found.push({ faults: [s.variant, t.variant], log })
    })
  }

  private pairGain(s: Scored, t: Scored, units: readonly Unit[]): number {
    const all = [...new Set([...s.units, ...t.units])]
    if (s.tied || t.tied) return this.together(all, units, s.variant, t.variant)
    let gain = 0
    const both: number[] = []
    for (const u of all) {
      const [i, j] = [s.units.indexOf(u), t.units.indexOf(u)]
      if (i >= 0 && j >= 0) both.push(u)
      else gain += i >= 0 ? s.gains[i]! : t.gains[j]!
    }
    return gain + this.together(both, units, s.variant, t.variant)
  }

  /** By how much each reading speaks for one explanation against another, taken by itself. */
  eachFor(one: readonly Variant[], other: readonly Variant[]): { reading: Taken; nats: number }[] {
    const seenUnder = (r: number, faults: readonly Variant[]) => (faults.length === 0 ? this.taken[r]!.base : faults.length === 1 ? this.seen(r, faults[0]!) : this.seenPair(r, faults[0]!, faults[1]!))
    const log = (r: number, faults: readonly Variant[]) => this.logOf([r], () => seenUnder(r, faults), () => 0)
    return this.taken.map(({ test, value }, r) => ({ reading: { test, value }, nats: log(r, one) - log(r, other) }))
  }

  /** How far the best explanation is from the readings: the worst reading by itself. */
  private strainOf(faults: readonly Variant[]): number {
    let worst = 0
    this.taken.forEach(({ value }, r) => {
      const seen = faults.length === 0 ? this.taken[r]!.base : faults.length === 1 ? this.seen(r, faults[0]!) : this.seenPair(r, faults[0]!, faults[1]!)
      if (seen === null) return
      const { log, ohms } = weighAlone(seen, value, this.supply)
      const z = ohms && value.kind === 'ohm' ? -0.5 * ((value.ohm - ohms.mean) / Math.hypot(ohms.noise, ...ohms.figures, ...ohms.coils.map(([d, s]) => s * this.coils(d).sd))) ** 2 : log
      worst = Math.min(worst, z)
    })
    return worst
  }
}

const NO_UNITS: readonly number[] = []

/** How many figures of a fault's cell a reading may move with. */
const figuresOf = (v: Variant): number => (v.leak ? 1 : v.shifted.length)
