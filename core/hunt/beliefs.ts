import type { FieldTest, ReadingValue } from '../record'
import { DisjointSets, type DeviceId } from '../site'
import { blurAt, type Prediction } from './predict'
import { logSum } from './normal'
import { eachUnit, chosenCells, USUAL_PRUNING, type Pruning, type Scored } from './pair-bounds'
import { addPairs, LISTED_WITHIN_NATS, type FaultSet } from './pairs'
import type { Predictor } from './memoize'
import { LogSumAccumulator } from './log-sum'
import type { Catalogue, FaultHypothesis } from './variants'
import { weighAlone, weighTogether, type CoilPriors, type Weighed } from './weigh'

/** A reading as a hunt takes it: what was tried and what it gave, ohms after the meter's own leads are taken off. */
export interface Observation {
  readonly test: FieldTest
  readonly value: ReadingValue
}

/** One explanation: no fault, one, or two, with its part of the belief. */
export interface Explanation {
  readonly faults: readonly FaultHypothesis[]
  readonly p: number
}

export interface Beliefs {
  /** How likely it is that a part is at fault, by the part's key; parts without any belief are left out. */
  readonly parts: ReadonlyMap<string, number>
  /** How likely it is that nothing is at fault. */
  readonly nothing: number
  /** Explanations that together hold nearly all of the belief, the likeliest first. */
  readonly explanations: readonly Explanation[]
  /** The same by what they explain: readings that have nothing to do with each other are explained apart. */
  readonly islands: readonly (readonly Explanation[])[]
  /**
   * Log-likelihood of the best explanation over what sound readings would have: below `STRAINED` the record itself is
   * in doubt.
   */
  readonly strain: number
}

/** How many faults there may be. */
export interface CountOdds {
  readonly none: number
  readonly one: number
  readonly two: number
}

/** What leads that touch may explain in a reading together with another fault, beyond what they do alone, nats. */
const TOUCHING_SLACK = 6
/** So many of the likeliest pairs are looked at first after the next reading. */
const LEADING = 8
/** So many explanations are kept. */
const KEPT_EXPLANATIONS = 400
/** A single fault with less of the belief than this is listed once, by its likeliest cell. */
const ONE_CELL = Math.log(0.01)

/** A reading with what it would be if nothing were wrong. */
interface Held {
  readonly test: FieldTest
  readonly value: ReadingValue
  readonly base: Prediction
  readonly baseOhms: Extract<Prediction, { kind: 'ohms' }> | null
}
/**
 * Readings that must be weighed together, with the log of "nothing wrong". `id` is another as soon as a reading
 * joins.
 */
interface Unit {
  readonly id: number
  readonly readings: readonly number[]
  readonly base: number
  readonly ohms: boolean
}
/**
 * The belief over all single faults on their grids and all pairs, after some readings. Everything is a ratio to
 * "nothing wrong": readings that a fault does not touch cancel. Readings in ohms are weighed in units of those that
 * share coils, all else by itself. A pair whose faults show in different units is the product of its two; others are
 * worked out together where a bound says that they can matter.
 */
export class Posterior {
  private readonly taken: Held[] = []
  /** By reading: the faults that can show in it. */
  private readonly showing: number[][] = []
  private supply_V: number | null = null
  /** By unit: what every cell explains better than "nothing" there, not a number until asked for. */
  private readonly gains = new Map<number, Float64Array>()
  private readonly tied = new Map<number, { readonly units: string; readonly gain: number }>()
  /**
   * Of pairs that were predicted together: the sum over readings that stand by themselves, up to one of them, and
   * over units in ohms.
   */
  private readonly met = new Map<number, { upTo: number; plain: number; ohmUnits: string; ohms: number }>()
  private readonly unitIds = new Map<string, number>()
  /** The likeliest pairs after the reading before. */
  private leading: readonly (readonly [FaultHypothesis, FaultHypothesis])[] = []
  private readonly odds: Float64Array
  /** By fault: the number of its part among the catalogue's keys. */
  private readonly partOf: Int32Array

  constructor(
    private readonly catalogue: Catalogue,
    private readonly predictor: Predictor,
    private readonly coils: CoilPriors,
    private readonly nominal_V: number,
    private readonly count: CountOdds,
    private readonly pruning: Pruning = USUAL_PRUNING,
  ) {
    const whole = catalogue.faults.reduce((s, f) => s + f.prior, 0)
    const numbers = new Map(catalogue.keys.map((key, n) => [key, n]))
    this.partOf = Int32Array.from(catalogue.faults, (f) => numbers.get(f.key)!)
    this.odds = Float64Array.from(catalogue.variants, (v) =>
      Math.log((catalogue.faults[v.fault]!.prior / whole) * v.share),
    )
  }

  /** Adds a reading; one whose test says nothing here is left out. */
  add(reading: Observation): boolean {
    const base = this.predictor.base(reading.test)
    if (base === null) return false
    if (reading.test.kind === 'supply' && reading.value.kind === 'volt') {
      this.supply_V = reading.value.volt
      this.gains.clear()
      this.tied.clear()
      this.met.clear()
    } // all volts are read against it
    this.taken.push({ ...reading, base, baseOhms: weighAlone(base, reading.value, this.supply).ohms })
    this.showing.push(
      this.catalogue.faults.flatMap((f) => (this.predictor.mayAffect(reading.test, f) ? [f.index] : [])),
    )
    return true
  }

  private get supply() {
    return { read: this.supply_V, nominal: this.nominal_V }
  }

  /** What a reading's test would show under some faults. */
  private seen(r: number, faults: readonly FaultHypothesis[]): Prediction | null {
    return this.predictor.under(this.taken[r]!.test, faults)
  }

  /** Log-likelihood of some readings under a hypothesis. Figures of a fault are shared by all its readings. */
  private logOf(
    readings: readonly number[],
    seenOf: (r: number) => Prediction | null,
    offsetOf: (r: number) => number,
  ): number {
    let log = 0
    const together: Weighed[] = []
    for (const r of readings) {
      const seen = seenOf(r)
      if (seen === null) continue
      const { value } = this.taken[r]!
      const weighed = weighAlone(seen, value, this.supply)
      log += weighed.log
      if (weighed.ohms && value.kind === 'ohm')
        together.push({ ohm: value.ohm, seen: weighed.ohms, offset: offsetOf(r) })
    }
    return together.length === 0 ? log : log + weighTogether(together, this.coils)
  }

  /** Readings in ohms that share a coil as recorded are one unit; every other reading is one by itself. */
  private units(): { units: Unit[]; unitOf: Int32Array } {
    const joined = new DisjointSets<number>()
    const byCoil = new Map<DeviceId, number>()
    this.taken.forEach(({ baseOhms }, r) =>
      baseOhms?.coils.forEach(([d]) => {
        const at = byCoil.get(d)
        if (at === undefined) byCoil.set(d, r)
        else joined.join(r, at)
      }),
    )
    const groups = new Map<number, number[]>()
    this.taken.forEach((_, r) => groups.set(joined.of(r), [...(groups.get(joined.of(r)) ?? []), r]))
    const unitOf = new Int32Array(this.taken.length)
    const units = [...groups.values()].map((readings, u): Unit => {
      for (const r of readings) unitOf[r] = u
      const key = readings.join(',')
      if (!this.unitIds.has(key)) this.unitIds.set(key, this.unitIds.size)
      return {
        id: this.unitIds.get(key)!,
        readings,
        base: this.logOf(
          readings,
          (r) => this.taken[r]!.base,
          () => 0,
        ),
        ohms: readings.some((r) => this.taken[r]!.base.kind === 'ohms' || this.taken[r]!.base.kind === 'insulated'),
      }
    })
    return { units, unitOf }
  }

  private rowOf(unit: Unit): Float64Array {
    const known = this.gains.get(unit.id)
    if (known) return known
    const row = new Float64Array(this.catalogue.variants.length).fill(NaN)
    this.gains.set(unit.id, row)
    return row
  }

  /** The cell that shows as this one does in all of some readings. */
  private likeIn(readings: readonly number[], v: FaultHypothesis): number {
    const like = this.predictor.like(this.taken[readings[0]!]!.test, v)
    return like === v || readings.every((r) => this.predictor.like(this.taken[r]!.test, v) === like)
      ? like.index
      : v.index
  }

  /** What a fault explains better than "nothing" in one unit by itself. */
  private gainIn(unit: Unit, row: Float64Array, v: FaultHypothesis): number {
    const like = this.likeIn(unit.readings, v)
    if (Number.isNaN(row[like]!))
      row[like] =
        this.logOf(
          unit.readings,
          (r) => this.seen(r, [v]),
          () => 0,
        ) - unit.base
    return (row[v.index] = row[like]!)
  }

  beliefs(): Beliefs {
    const { catalogue, count } = this
    const { units, unitOf } = this.units()
    const setOf: number[][] = catalogue.faults.map(() => [])
    // A unit's readings come one after the other only by chance: it may be there already, farther back.
    this.showing.forEach((faults, r) => {
      for (const f of faults) if (!setOf[f]!.includes(unitOf[r]!)) setOf[f]!.push(unitOf[r]!)
    })
    const [logNone, logOne] = [Math.log(count.none || 1e-300), Math.log(count.one || 1e-300)]

    // Every single fault on its grid: its log after the readings, and the best that any does in each unit.
    const best = new Float64Array(units.length)
    const log = new Float64Array(catalogue.variants.length)
    const shows = catalogue.faults.map((f): Shows => {
      const set = setOf[f.index]!.sort((a, b) => a - b)
      const rows = set.map((u) => this.rowOf(units[u]!))
      const tied = figuresOf(f.variants[0]!) > 0 && set.filter((u) => units[u]!.ohms).length > 1
      for (const v of f.variants) {
        let gain = 0
        for (let k = 0; k < set.length; k++) {
          const known = rows[k]![v.index]!
          const here = known === known ? known : this.gainIn(units[set[k]!]!, rows[k]!, v)
          gain += here
          if (here > best[set[k]!]!) best[set[k]!] = here
        }
        log[v.index] = this.odds[v.index]! + (tied ? this.tiedGain(set, units, v) : gain)
      }
      return { units: set, rows, tied }
    })
    const scored = (variant: FaultHypothesis): Scored => {
      const { units: set, rows, tied } = shows[variant.fault]!
      const { links, where } = catalogue.faults[variant.fault]!
      const gains = rows.map((row) => row[variant.index]!)
      const reach = links
        ? gains.map((g) => (where.kind === 'pair' ? Infinity : Math.max(0, g) + TOUCHING_SLACK))
        : [...gains]
      const odds = this.odds[variant.index]!
      if (tied) {
        const ohms = set.filter((u) => units[u]!.ohms).length
        const spread = (log[variant.index]! - odds - gains.reduce((s, g) => s + g, 0)) / ohms
        set.forEach((u, k) => {
          if (units[u]!.ohms) {
            gains[k]! += spread
            reach[k] = Math.max(reach[k]!, gains[k]!)
            best[u] = Math.max(best[u]!, gains[k]!)
          }
        })
      }
      return { variant, units: set, log: log[variant.index]!, odds, gains, reach, tied, standsFor: [variant], extra: 0 }
    }

    // What singles and the pairs that led before hold is the least that all hold: what lies far below it is not worth
    // working out.
    const alone = catalogue.faults.map((f) => logOne + logSum(f.variants.map((v) => log[v.index]!)))
    const logTwo = Math.log(2 * count.two || 1e-300)
    const evidenceLowerBound = logSum([
      logNone,
      ...alone,
      ...this.leading.map(([i, j]) => {
        const [s, t] = [scored(i), scored(j)]
        return logTwo + s.odds + t.odds + this.pairGain(s, t, units)
      }),
    ])
    const sums = new LogSumAccumulator(evidenceLowerBound, catalogue.keys.length)
    const found: FaultSet[] = [{ faults: [], log: logNone }]
    for (const f of catalogue.faults) {
      const all = alone[f.index]!
      sums.add(this.partOf[f.index]!, all)
      if (all < evidenceLowerBound - LISTED_WITHIN_NATS) continue
      if (all < evidenceLowerBound + ONE_CELL)
        found.push({ faults: [f.variants.reduce((m, v) => (log[v.index]! > log[m.index]! ? v : m))], log: all })
      else
        for (const v of f.variants)
          if (logOne + log[v.index]! > evidenceLowerBound - LISTED_WITHIN_NATS)
            found.push({ faults: [v], log: logOne + log[v.index]! })
    }
    if (count.two > 0) {
      const cells = chosenCells(catalogue, log, scored, this.pruning)
      addPairs(
        cells,
        {
          partOf: (v) => this.partOf[v.fault]!,
          gain: (s, t) => this.pairGain(s, t, units),
          best,
          evidenceLowerBound: evidenceLowerBound,
          logTwo,
          scored,
          pruning: this.pruning,
        },
        sums,
        found,
      )
    }

    const total = logSum([logNone, sums.all()])
    const believed = new Map<string, number>()
    catalogue.keys.forEach((key, part) => {
      const p = Math.exp(sums.of(part) - total)
      if (p > 1e-6) believed.set(key, Math.min(1, p))
    })
    const explanations = found
      .filter((f) => f.log > total - LISTED_WITHIN_NATS)
      .sort((a, b) => b.log - a.log)
      .slice(0, KEPT_EXPLANATIONS)
      .map((f) => ({ faults: f.faults, p: Math.exp(f.log - total) }))
    this.leading = explanations.flatMap(({ faults: [i, j] }) => (i && j ? [[i, j] as const] : [])).slice(0, LEADING)
    return {
      parts: believed,
      nothing: Math.exp(logNone - total),
      explanations,
      islands: [explanations],
      strain: this.strainOf(explanations[0]?.faults ?? []),
    }
  }

  /** Gain of one or two faults over all of some units at once. */
  private together(
    set: readonly number[],
    units: readonly Unit[],
    i: FaultHypothesis,
    j: FaultHypothesis | null,
  ): number {
    const readings = set.flatMap((u) => units[u]!.readings)
    const base = set.reduce((s, u) => s + units[u]!.base, 0)
    return (
      (j === null
        ? this.logOf(
            readings,
            (r) => this.seen(r, [i]),
            () => 0,
          )
        : this.logOf(
            readings,
            (r) => this.seen(r, [i, j]),
            (r) => (this.predictor.activeFaults(this.taken[r]!.test, [i, j]).includes(i) ? 0 : figuresOf(i)),
          )) - base
    )
  }

  /** The same for one whose figures tie its units together, while those stay as they are. */
  private tiedGain(set: readonly number[], units: readonly Unit[], v: FaultHypothesis): number {
    const key = set.map((u) => units[u]!.id).join()
    const known = this.tied.get(v.index)
    if (known?.units === key) return known.gain
    const like = this.likeIn(
      set.flatMap((u) => units[u]!.readings),
      v,
    )
    const shared = this.tied.get(like)
    const made = shared?.units === key ? shared : { units: key, gain: this.together(set, units, v, null) }
    this.tied.set(v.index, made).set(like, made)
    return made.gain
  }

  /**
   * What a pair explains better than "nothing". Where only one shows, its own gain stands; where both do, or a link
   * leads the one's current to the other, they are predicted together: a reading by itself once and for all, ohms
   * anew when a unit changed.
   */
  private pairGain(s: Scored, t: Scored, units: readonly Unit[]): number {
    const [i, j] = [s.variant, t.variant]
    const [sLinks, tLinks] = [i, j].map((v) => this.catalogue.faults[v.fault]!.links) as [boolean, boolean]
    const key = i.index * this.catalogue.variants.length + j.index
    const met = this.met.get(key) ?? { upTo: 0, plain: 0, ohmUnits: '', ohms: 0 }
    let gain = 0
    const ohmUnits: number[] = []
    eachUnit(s.units, t.units, (u, k, l) => {
      const { ohms, readings } = units[u]!
      const both = k >= 0 && l >= 0
      if (
        ohms ? both || sLinks || tLinks || (k >= 0 && s.tied) || (l >= 0 && t.tied) : both || (k >= 0 ? sLinks : tLinks)
      ) {
        if (ohms) ohmUnits.push(u)
        else if (readings[0]! >= met.upTo) {
          const felt = both ? this.predictor.activeFaults(this.taken[readings[0]!]!.test, [i, j]) : []
          met.plain += felt.length === 1 ? (felt[0] === i ? s.gains[k]! : t.gains[l]!) : this.together([u], units, i, j)
        }
      } else gain += k >= 0 ? s.gains[k]! : t.gains[l]!
    })
    met.upTo = this.taken.length
    const now = ohmUnits.map((u) => units[u]!.id).join()
    if (now !== met.ohmUnits) {
      met.ohmUnits = now
      met.ohms = this.together(ohmUnits, units, i, j)
    }
    this.met.set(key, met)
    return gain + met.plain + met.ohms
  }

  /** By how much each reading speaks for one explanation against another, taken by itself. */
  eachFor(
    one: readonly FaultHypothesis[],
    other: readonly FaultHypothesis[],
  ): { reading: Observation; nats: number }[] {
    const log = (r: number, faults: readonly FaultHypothesis[]) =>
      this.logOf(
        [r],
        () => this.seen(r, faults),
        () => 0,
      )
    return this.taken.map(({ test, value }, r) => ({ reading: { test, value }, nats: log(r, one) - log(r, other) }))
  }

  /** How far the best explanation is from the readings: the worst reading by itself. */
  private strainOf(faults: readonly FaultHypothesis[]): number {
    let worst = 0
    this.taken.forEach(({ value }, r) => {
      const seen = this.seen(r, faults)
      if (seen === null) return
      const { log, ohms } = weighAlone(seen, value, this.supply)
      const z =
        ohms && value.kind === 'ohm'
          ? -0.5 *
            ((value.ohm - ohms.mean) /
              Math.hypot(
                blurAt(ohms, value.ohm),
                ...ohms.figures,
                ...ohms.coils.map(([d, s]) => s * this.coils(d).sd),
              )) **
              2
          : log
      worst = Math.min(worst, z)
    })
    return worst
  }
}

/** Where a fault shows: its units, and the row of each. */
interface Shows {
  readonly units: readonly number[]
  readonly rows: readonly Float64Array[]
  readonly tied: boolean
}

/** How many figures of a fault's cell a reading may move with. */
const figuresOf = (v: FaultHypothesis): number => (v.leak ? 1 : v.shifted.length)
