import type { Observation } from '../beliefs'
import type { Predictor } from '../memoize'
import { logNormal, logSum } from '../normal'
import { blurAt, type Prediction } from '../predict'
import type { FaultHypothesis } from '../variants'
import { classesOf, eachByItself, unfeltOf, type CellClass, type Model } from './classes'
import { distinctByPart, distinctOdds } from './distinct'
import { logLikelihood, type Weighable } from './likelihood'
import { addTo, constant, orOneMore, times, withoutOne, zero, type Polynomial } from './polynomial'

/** Some faults of a group together, one cell for all of each class, with the log of what all such sets hold. */
export interface Entry {
  readonly cells: readonly FaultHypothesis[]
  readonly log: number
  /** The part of it that is their odds. */
  readonly odds: number
}

/** What the faults of a group hold, given those that are shared: exp(−`top`) of all of it. */
export interface Factor {
  readonly top: number
  /** By the number of the group's own faults. */
  readonly sum: Polynomial
  /** The same of those sets in which a part is at fault. */
  readonly byPart: ReadonlyMap<number, Polynomial>
  readonly entries: readonly Entry[]
  /** The entries that hold nearly all. */
  readonly leading: readonly Entry[]
}

/** Two faults of one thread are worked out together where they might hold so much of what all hold. */
const [COUNTS, COUNTS_LINKED] = [1e-5, 1e-3]
/** Three are, where two of them hold so much. */
const LEADS = 0.02
/** What one more fault is worth about, beside its odds. */
export const ONE_MORE = 2

/** Entries that hold nearly all of what all hold. */
const [NEARLY_ALL, MOST_LEADING] = [0.99, 8]
function leadingOf(entries: readonly Entry[]): Entry[] {
  const whole = logSum(entries.map((e) => e.log))
  let held = 0
  const found: Entry[] = []
  for (const e of entries) {
    if (held > NEARLY_ALL || found.length >= MOST_LEADING) break
    found.push(e)
    held += Math.exp(e.log - whole)
  }
  return found
}

/** Log-likelihood of readings under some faults. */
export function logOf(model: Model, readings: readonly Observation[], faults: readonly FaultHypothesis[]): number {
  const { predictor } = model
  const weighables = readings.map(({ test, value }): Weighable => {
    const seen = predictor.under(test, faults)
    return { value, seen, slots: slotsOf(predictor, test, faults, seen) }
  })
  return logLikelihood(weighables, model.supply_V, model.coils)
}

/**
 * Which figure of which fault each of a prediction's is: four to a fault, in the order of the hypothesis. A leak that
 * nothing leads to has none; the others' order is then not known, and each is taken for one of its own.
 */
function slotsOf(
  predictor: Predictor,
  test: Observation['test'],
  faults: readonly FaultHypothesis[],
  seen: Prediction | null,
): readonly number[] {
  const ohms = seen?.kind === 'either' ? seen.well : seen
  if (ohms?.kind !== 'ohms' || ohms.figures.length === 0) return []
  const felt = faults.length === 1 ? faults : predictor.activeFaults(test, faults)
  const slots = felt.flatMap((v) => {
    const at = faults.indexOf(v)
    return Array.from({ length: v.leak ? 1 : v.shifted.length }, (_, k) => 4 * at + k)
  })
  return slots.length === ohms.figures.length ? slots : ohms.figures.map((_, k) => -1 - k)
}

/** The most that a reading can speak for any hypothesis, nats. */
function mostOf(model: Model, { test, value }: Observation): number {
  if (value.kind === 'volt') return logNormal(0, 0.3)
  if (value.kind !== 'ohm') return 0
  const base = model.predictor.base(test)
  return logNormal(0, base?.kind === 'ohms' ? blurAt(base, value.ohm) : 0.1 + 0.004 * value.ohm)
}

interface Unit {
  readonly readings: readonly Observation[]
  readonly base: number
  /** The most that it can speak for any hypothesis, against nothing wrong, nats. */
  readonly most: number
}
function unitsOf(model: Model, readings: readonly Observation[]): Unit[] {
  const isOhms = ({ value }: Observation) => value.kind === 'ohm' || value.kind === 'open'
  const unit = (list: readonly Observation[]): Unit => {
    const base = logOf(model, list, [])
    return { readings: list, base, most: list.reduce((s, r) => s + mostOf(model, r), 0) - base }
  }
  const ohms = readings.filter(isOhms)
  return [...(ohms.length > 0 ? [unit(ohms)] : []), ...readings.filter((r) => !isOhms(r)).map((r) => unit([r]))]
}

/** Threads whose readings hang together: their faults are summed up, given what is shared. */
export class Group {
  private readonly classes: readonly CellClass[]
  private readonly made = new Map<string, Factor>()
  /** Readings that hang together, with what they hold where nothing is wrong and at most; the quickest first. */
  private readonly units: readonly Unit[]
  private readonly most: number
  /** Odds, by part, of own cells that show in no reading, and sets of them by their number. */
  private readonly unfelt: ReadonlyMap<number, number>
  private readonly unfeltSum: Polynomial

  /** `linked`: a shared fault leads the one's current to another, so that each cell may show in every reading. */
  constructor(
    private readonly model: Model,
    readonly readings: readonly Observation[],
    readonly cells: readonly FaultHypothesis[],
    private readonly linked = false,
  ) {
    this.classes = linked ? eachByItself(model, cells) : classesOf(model, cells, readings)
    this.unfelt = unfeltOf(model, cells, this.classes)
    this.unfeltSum = [...this.unfelt.values()].reduce(orOneMore, constant(1))
    this.units = unitsOf(model, readings)
    this.most = this.units.reduce((s, u) => s + u.most, 0)
  }

  /** How a shared fault shows in the readings here; empty where it does not. */
  effectOf(cell: FaultHypothesis): string {
    const { predictor, catalogue } = this.model
    const fault = catalogue.faults[cell.fault]!
    const key = this.readings
      .map(({ test }) => (predictor.mayAffect(test, fault) ? predictor.like(test, cell).index : ''))
      .join()
    return /\d/.test(key) ? key : ''
  }

  /** What the group holds beside some shared faults, as against nothing at all being wrong; `key` tells them apart. */
  factor(key: string, shared: readonly FaultHypothesis[]): Factor {
    const known = this.made.get(key)
    if (known) return known
    const made = this.sumUp(shared)
    this.made.set(key, made)
    return made
  }

  /**
   * How much better the readings here fit with one more shared fault, as far as the entries that hold most tell, nats:
   * what they hold then against what they hold now.
   */
  worthOf(now: readonly Entry[], shared: readonly FaultHypothesis[], oneMore: number): number {
    const [before, after]: [number[], number[]] = [[], []]
    for (const e of now) {
      const power = e.cells.length * Math.log(oneMore)
      before.push(e.log + power)
      after.push(e.odds + power + this.gain([...e.cells, ...shared], -Infinity))
    }
    return logSum(after) - logSum(before)
  }

  /** How much better some faults explain the readings than none; nothing where that is below `least`. */
  private gain(faults: readonly FaultHypothesis[], least: number): number {
    let [sum, hope] = [0, this.most]
    for (const { readings, base, most } of this.units) {
      hope -= most
      sum += logOf(this.model, readings, faults) - base
      if (sum + hope < least) return -Infinity
    }
    return sum
  }

  private sumUp(shared: readonly FaultHypothesis[]): Factor {
    const { model, classes } = this
    const gain = (own: readonly FaultHypothesis[], least = -Infinity) => this.gain([...own, ...shared], least)
    const none = gain([])
    const singles = classes.map((c) => gain([c.members[0]!]))
    const top = Math.max(none, ...singles.map((g, k) => g + Math.log(classes[k]!.odds)))
    const sum = zero()
    const byPart = new Map<number, Polynomial>()
    const entries: Entry[] = [{ cells: [], log: none, odds: 0 }]
    const count = (part: number, degree: number, w: number) => {
      let p = byPart.get(part)
      if (!p) byPart.set(part, (p = zero()))
      p[degree]! += w
    }
    sum[0] = Math.exp(none - top)
    classes.forEach(({ odds, parts, members }, k) => {
      const w = Math.exp(singles[k]! - top)
      sum[1]! += odds * w
      for (const [part, o] of parts) count(part, 1, o * w)
      entries.push({ cells: [members[0]!], log: singles[k]! + Math.log(odds), odds: Math.log(odds) })
    })
    // What two hold at most, against all that is held so far.
    const least = Math.log((sum[0] + ONE_MORE * sum[1]!) * (this.linked ? COUNTS_LINKED : COUNTS)) + top
    const room = this.most + 2 * Math.log(ONE_MORE) - least
    const leading: { readonly pair: readonly [number, number]; readonly w: number }[] = []
    for (let i = 0; i < classes.length; i++)
      for (let j = i; j < classes.length; j++) {
        const [a, b] = [classes[i]!, classes[j]!]
        if (Math.log(a.odds * b.odds) + room < 0) continue
        const other =
          i === j ? a.members.find((m) => model.partOf[m.fault] !== model.partOf[a.members[0]!.fault]) : b.members[0]!
        if (!other) continue
        const odds = distinctOdds([a, b])
        if (odds <= 0) continue
        const log = gain([a.members[0]!, other], least - Math.log(odds) - 2 * Math.log(ONE_MORE))
        if (log === -Infinity) continue
        const w = Math.exp(log - top)
        sum[2]! += odds * w
        for (const [part, o] of distinctByPart([a, b])) count(part, 2, o * w)
        if (Math.log(odds) + log > least)
          entries.push({ cells: [a.members[0]!, other], log: log + Math.log(odds), odds: Math.log(odds) })
        leading.push({ pair: [i, j], w: odds * w })
      }
    this.addTriples(leading, gain, top, sum, count)
    const kept = entries.filter((e) => e.log > least).sort((a, b) => b.log - a.log)
    return { top, ...this.withUnfelt(sum, byPart), entries: kept, leading: leadingOf(kept) }
  }

  /** The same with the faults that no reading shows, each at a part that has no other. */
  private withUnfelt(felt: Polynomial, byPart: ReadonlyMap<number, Polynomial>): Pick<Factor, 'sum' | 'byPart'> {
    const sum = times(felt, this.unfeltSum)
    const all = new Map<number, Polynomial>()
    for (const [part, p] of byPart) {
      const beside = this.unfelt.get(part)
      const rest = beside ? withoutOne(this.unfeltSum, beside) : this.unfeltSum
      const with_ = times(p, rest)
      if (beside) addTo(sum, times(p, this.unfeltSum), -1)
      if (beside) addTo(sum, with_)
      all.set(part, with_)
    }
    for (const [part, odds] of this.unfelt) {
      const without = zero()
      addTo(without, felt)
      const own = byPart.get(part)
      if (own) addTo(without, own, -1)
      const p = zero()
      addTo(p, times(without, withoutOne(this.unfeltSum, odds)), odds, 1)
      const known = all.get(part)
      if (known) addTo(known, p)
      else all.set(part, p)
    }
    return { sum, byPart: all }
  }

  /** Sets of three that grow out of the pairs that lead. */
  private addTriples(
    leading: readonly { readonly pair: readonly [number, number]; readonly w: number }[],
    gain: (own: readonly FaultHypothesis[], least?: number) => number,
    top: number,
    sum: Polynomial,
    count: (part: number, degree: number, w: number) => void,
  ): void {
    const whole = sum[0]! + ONE_MORE * sum[1]! + ONE_MORE ** 2 * sum[2]!
    const seen = new Set<string>()
    for (const { pair, w } of leading) {
      if (ONE_MORE ** 2 * w < LEADS * whole) continue
      this.classes.forEach((_, k) => {
        const key = [...pair, k].sort((a, b) => a - b).join()
        if (pair.includes(k) || seen.has(key)) return
        seen.add(key)
        const three = [...pair, k].map((i) => this.classes[i]!)
        const odds = distinctOdds(three)
        if (odds <= 0) return
        if (Math.log(odds) + 3 * Math.log(ONE_MORE) + this.most < Math.log(whole * COUNTS) + top) return
        const log = gain(
          three.map((x) => x.members[0]!),
          Math.log(whole * COUNTS) + top - Math.log(odds) - 3 * Math.log(ONE_MORE),
        )
        if (log === -Infinity) return
        sum[3]! += odds * Math.exp(log - top)
        for (const [part, o] of distinctByPart(three)) count(part, 3, o * Math.exp(log - top))
      })
    }
  }
}
