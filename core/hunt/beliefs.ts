import type { FieldTest, ReadingValue } from '../record'
import type { DeviceId } from '../site'
import type { Foreseen, Foresight } from './foresee'
import { logSum } from './normal'
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

/** Pairs whose belief cannot reach this part of the whole are not worked out: e⁻⁹ each, of at most some thousands. */
const PRUNED = 9
/** A cell of a fault's grid takes part in pairs while it is within e⁻⁷ of the fault's best; the others add under a thousandth. */
const LIKELY_RANGE = 7
/** Cells of one fault that take part in pairs, the likeliest. */
const CELLS_IN_PAIRS = 6
const KEPT_EXPLANATIONS = 160

/** `extra` is the log-weight of the cells that this one stands for besides itself. */
interface Scored { readonly variant: Variant; readonly log: number; readonly units: readonly number[]; readonly extra: number }

/**
 * The belief over all single faults on their grids and all pairs, after some readings. Everything is a ratio to "nothing
 * wrong": readings that a fault does not touch cancel. Readings in ohms are weighed in units of those that share coils, all
 * else by itself. A pair whose faults show in different units is the product of its two; others are worked out together.
 */
export class Weighing {
  private readonly taken: { readonly test: FieldTest; readonly value: ReadingValue; readonly base: Foreseen; readonly baseAlone: number; readonly baseOhms: Extract<Foreseen, { kind: 'ohms' }> | null }[] = []
  private readonly touchedBy: Set<number>[] = []
  private supply_V: number | null = null
  private readonly cache = new Map<number, Map<number, Foreseen | null>>()
  private readonly pairCache = new Map<string, Foreseen | null>()

  constructor(private readonly catalogue: Catalogue, private readonly foresight: Foresight, private readonly coils: CoilPriors, private readonly nominal_V: number,
    private readonly count: CountOdds, private readonly excluded: ReadonlySet<string> = new Set()) {}

  /** Adds a reading; one whose test says nothing here is left out. */
  add(reading: Taken): boolean {
    const base = this.foresight.base(reading.test)
    if (base === null) return false
    if (reading.test.kind === 'supply' && reading.value.kind === 'volt') this.supply_V = reading.value.volt
    const { log, ohms } = weighAlone(base, reading.value, this.supply)
    this.taken.push({ ...reading, base, baseAlone: log, baseOhms: ohms })
    this.touchedBy.push(new Set(this.catalogue.variants.filter((v) => this.foresight.touches(reading.test, v)).map((v) => v.index)))
    return true
  }

  private get supply() { return { read: this.supply_V, nominal: this.nominal_V } }

  /** What a reading's test would show under one fault, worked out once. */
  private seen(r: number, v: Variant): Foreseen | null {
    if (!this.touchedBy[r]!.has(v.index)) return this.taken[r]!.base
    const row = this.cache.get(r) ?? this.cache.set(r, new Map()).get(r)!
    if (!row.has(v.index)) row.set(v.index, this.foresight.under(this.taken[r]!.test, [v]))
    return row.get(v.index)!
  }

  private seenPair(r: number, i: Variant, j: Variant): Foreseen | null {
    const [byI, byJ] = [this.touchedBy[r]!.has(i.index), this.touchedBy[r]!.has(j.index)]
    if (!byI || !byJ) return byI ? this.seen(r, i) : this.seen(r, j)
    const key = `${r} ${i.index} ${j.index}`
    if (!this.pairCache.has(key)) this.pairCache.set(key, this.foresight.under(this.taken[r]!.test, [i, j]))
    return this.pairCache.get(key)!
  }

  /** Log-likelihood of some readings under a hypothesis. Figures of a fault are shared by all its readings. */
  private logOf(readings: readonly number[], seenOf: (r: number) => Foreseen | null, offsetOf: (r: number) => number): number {
    let log = 0
    const together: Weighed[] = []
    for (const r of readings) {
      const seen = seenOf(r)
      if (seen === null) continue
      const { test, value } = this.taken[r]!
      const weighed = weighAlone(seen, value, this.supply)
      log += weighed.log
      if (weighed.ohms && value.kind === 'ohm') together.push({ ohm: value.ohm, seen: weighed.ohms, offset: test.kind === 'supply' ? 0 : offsetOf(r) })
    }
    return together.length === 0 ? log : log + weighTogether(together, this.coils)
  }

  /** Which unit each reading belongs to: readings in ohms that share a coil as recorded are one. */
  private units(): { of: number[]; readings: number[][] } {
    const parent = this.taken.map((_, r) => r)
    const root = (r: number): number => (parent[r] === r ? r : (parent[r] = root(parent[r]!)))
    const byCoil = new Map<DeviceId, number>()
    this.taken.forEach(({ baseOhms }, r) => baseOhms?.coils.forEach(([d]) => { const at = byCoil.get(d); if (at === undefined) byCoil.set(d, r); else parent[root(r)] = root(at) }))
    const number = new Map<number, number>()
    const of = this.taken.map((_, r) => { const k = root(r); if (!number.has(k)) number.set(k, number.size); return number.get(k)! })
    const readings: number[][] = Array.from({ length: number.size }, () => [])
    of.forEach((u, r) => readings[u]!.push(r))
    return { of, readings }
  }

  beliefs(): Beliefs {
    const { catalogue, count } = this
    const units = this.units()
    const baseLog = units.readings.map((list) => this.logOf(list, (r) => this.taken[r]!.base, () => 0))
    const inUnits = (set: readonly number[]) => set.flatMap((u) => units.readings[u]!)
    const sumBase = (set: readonly number[]) => set.reduce((s, u) => s + baseLog[u]!, 0)
    const live = catalogue.faults.filter((f) => !this.excluded.has(f.key))
    const priorSum = live.reduce((s, f) => s + f.prior, 0)

    const prior = (v: Variant) => Math.log((catalogue.faults[v.fault]!.prior / priorSum) * v.share)

    // Every single fault on its grid.
    const singles: Scored[] = []
    const touchedUnits = new Map<number, number[]>()
    this.touchedBy.forEach((set, r) => { for (const v of set) { const list = touchedUnits.get(v); const u = units.of[r]!; if (!list) touchedUnits.set(v, [u]); else if (!list.includes(u)) list.push(u) } })
    const best = new Float64Array(units.readings.length)
    for (const fault of live) for (const variant of fault.variants) {
      const set = (touchedUnits.get(variant.index) ?? []).sort((a, b) => a - b)
      const gain = set.length === 0 ? 0 : this.logOf(inUnits(set), (r) => this.seen(r, variant), () => 0) - sumBase(set)
      singles.push({ variant, units: set, log: prior(variant) + gain, extra: 0 })
      if (set.length === 1) best[set[0]!] = Math.max(best[set[0]!]!, gain)
      else if (gain > 0) for (const u of set) {
        // What this fault does for one of several units, its figures aside: a bound for the pairs, not a belief.
        const one = this.logOf(units.readings[u]!, (r) => this.seen(r, variant), () => 0) - baseLog[u]!
        best[u] = Math.max(best[u]!, one)
      }
    }
    const keyOf = (v: Variant) => catalogue.faults[v.fault]!.key
    const byPart = new Map<string, number[]>()
    for (const s of singles) { const k = keyOf(s.variant); const list = byPart.get(k); if (list) list.push(s.log); else byPart.set(k, [s.log]) }
    const partLog = new Map([...byPart].map(([k, logs]) => [k, logSum(logs)]))

    const [logNone, logOne] = [Math.log(count.none || 1e-300), Math.log(count.one || 1e-300)]
    const logTwo = count.two > 0 ? Math.log(2 * count.two) : -Infinity
    const found: { faults: readonly Variant[]; log: number }[] = [{ faults: [], log: logNone }]
    for (const s of singles) found.push({ faults: [s.variant], log: logOne + s.log })
    let top = found.reduce((m, f) => Math.max(m, f.log), -Infinity)
    const partPairs = new Map<string, number[]>()
    const keep = (k: string, log: number) => { const list = partPairs.get(k); if (list) list.push(log); else partPairs.set(k, [log]) }
    const pairTotals: number[] = []

    if (count.two > 0) {
      const likely = this.likelyCells(singles)
      // Faults that show in the same units, by those units.
      const signatures = new Map<string, { units: readonly number[]; of: Scored[]; byPart: Map<string, number>; log: number }>()
      for (const s of likely) {
        const k = s.units.join(',')
        const sig = signatures.get(k) ?? signatures.set(k, { units: s.units, of: [], byPart: new Map(), log: -Infinity }).get(k)!
        sig.of.push(s)
      }
      const list = [...signatures.values()]
      for (const sig of list) {
        const parts = new Map<string, number[]>()
        for (const s of sig.of) { const k = keyOf(s.variant); const l = parts.get(k); if (l) l.push(s.log); else parts.set(k, [s.log]) }
        for (const [k, logs] of parts) sig.byPart.set(k, logSum(logs))
        sig.log = logSum(sig.byPart.values())
        sig.of.sort((a, b) => b.log - a.log)
      }
      const bound = (set: readonly number[]) => set.reduce((s, u) => s + best[u]!, 0)
      const tops = list.map((sig) => sig.of.reduce((m, s) => Math.max(m, prior(s.variant) + s.extra), -Infinity))
      list.forEach((one, a) => list.forEach((two, b) => {
        if (b < a) return
        const overlap = one.units.some((u) => two.units.includes(u))
        if (!overlap) {
          if (logTwo + one.log + two.log < top - PRUNED - 8) return
          // The product, each part with the other signature's whole; two cells of one part are no pair.
          const same = a === b
          for (const [k, log] of one.byPart) {
            const rest = two.byPart.has(k) ? logLess(two.log, two.byPart.get(k)!) : two.log
            if (rest === -Infinity) continue
            const l = logTwo + log + rest - (same ? Math.LN2 : 0)
            keep(k, same ? l + Math.LN2 : l)
            pairTotals.push(l)
          }
          if (!same) for (const [k, log] of two.byPart) { const rest = one.byPart.has(k) ? logLess(one.log, one.byPart.get(k)!) : one.log; if (rest > -Infinity) keep(k, logTwo + log + rest) }
          for (const s of one.of.slice(0, 8)) for (const t of two.of.slice(0, 8)) {
            const l = logTwo + s.log + t.log
            if (l > top - PRUNED + 3 && keyOf(s.variant) !== keyOf(t.variant) && (!same || s.variant.index < t.variant.index)) found.push({ faults: [s.variant, t.variant], log: l })
          }
          return
        }
        const all = [...new Set([...one.units, ...two.units])]
        const reach = bound(all)
        if (logTwo + tops[a]! + tops[b]! + reach < top - PRUNED) return
        for (const s of one.of) for (const t of two.of) {
          if ((a === b && s.variant.index >= t.variant.index) || keyOf(s.variant) === keyOf(t.variant)) continue
          const odds = logTwo + prior(s.variant) + s.extra + prior(t.variant) + t.extra
          if (odds + reach < top - PRUNED) continue
          const log = odds + this.logOf(inUnits(all), (r) => this.seenPair(r, s.variant, t.variant), (r) => (this.touchedBy[r]!.has(s.variant.index) ? 0 : figuresOf(s.variant))) - sumBase(all)
          top = Math.max(top, log)
          keep(keyOf(s.variant), log)
          keep(keyOf(t.variant), log)
          pairTotals.push(log)
          if (log > top - PRUNED) found.push({ faults: [s.variant, t.variant], log })
        }
      }))
    }

    const total = logSum([logNone, ...[...partLog.values()].map((l) => logOne + l), ...pairTotals])
    const parts = new Map<string, number>()
    for (const [k, log] of partLog) {
      const p = Math.exp(logSum([logOne + log, ...(partPairs.get(k) ?? [])]) - total)
      if (p > 1e-6) parts.set(k, p)
    }
    const explanations = found.filter((f) => f.log > total - PRUNED).sort((a, b) => b.log - a.log).slice(0, KEPT_EXPLANATIONS)
      .map((f) => ({ faults: f.faults, p: Math.exp(f.log - total) }))
    return { parts, nothing: Math.exp(logNone - total), explanations, strain: this.strainOf(explanations[0]?.faults ?? []) }
  }

  /** A fault's cells in its likely range; if those are many, the likeliest carry the weight of all. */
  private likelyCells(singles: readonly Scored[]): Scored[] {
    const byFault = new Map<number, Scored[]>()
    for (const s of singles) { const l = byFault.get(s.variant.fault); if (l) l.push(s); else byFault.set(s.variant.fault, [s]) }
    return [...byFault.values()].flatMap((cells) => {
      const top = cells.reduce((m, c) => Math.max(m, c.log), -Infinity)
      const near = cells.filter((c) => c.log > top - LIKELY_RANGE).sort((a, b) => b.log - a.log)
      if (near.length <= CELLS_IN_PAIRS) return near
      // Evenly over the range, so that both ends are there.
      const chosen = Array.from({ length: CELLS_IN_PAIRS }, (_, i) => near[Math.floor((i * near.length) / CELLS_IN_PAIRS)]!)
      const missing = logSum(near.map((c) => c.log)) - logSum(chosen.map((c) => c.log))
      return chosen.map((c) => ({ ...c, log: c.log + missing, extra: missing }))
    })
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

/** How many figures of a fault's cell a reading may move with. */
const figuresOf = (v: Variant): number => (v.leak ? 1 : v.shifted.length)

/** log(eᵃ − eᵇ) for a ≥ b. */
const logLess = (a: number, b: number): number => (b >= a - 1e-12 ? -Infinity : a + Math.log1p(-Math.exp(b - a)))
