import type { Observation } from '../beliefs'
import { logSum } from '../normal'
import type { FaultHypothesis } from '../catalogue'
import type { CellClass, Model } from './classes'
import { distinctByPart, distinctOdds } from './distinct'
import type { Fit } from './likelihood'
import { addTo, constant, orOneMore, times, withoutOne, zero, type Polynomial } from './polynomial'
import { fitAtMost, leftByChance, reachesOf, roomFor, roomOf, singleOf, type Reach, type Room } from './room'
import { gainOf, linkedUnits, mostOf, SHARPER_NATS, unitsOf, type Gain, type Unit } from './units'

/** Some faults of a group together, one cell for all of each class, with the log of what all such sets hold. */
export interface Entry {
  readonly cells: readonly FaultHypothesis[]
  /** What each of the cells stands for. */
  readonly classes: readonly CellClass[]
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
  /** What the group would hold if its readings fitted one of these just as they can, odds left out. */
  readonly ceiling: number
}

/** Two faults of one thread are worked out together where they might hold so much of what all hold. */
const [COUNTS, COUNTS_LINKED] = [1e-5, 1e-3]
/** Two that no reading shows both of are worked out where they might hold so much; else one explains nothing. */
const CLOSELY = 1e-3
/** Of more pairs than these those that could hold most are worked out. */
const MOST_PAIRS = 10_000
/** Three are, where with one more two might hold so much; and where the three might. */
const [LEADS, LEADS_THREE] = [0.02, 1e-3]
/** By so much further than asked for, so that what is hardly likelier is not summed up anew. */
const FURTHER_NATS = 1
/** So many sets of two and three are looked at again beside shared faults. */
const MOST_LEADERS = 40
/** What one more fault is worth about, beside its odds. */
export const ONE_MORE = 2

/** Entries that hold nearly all of what all hold, and the one without any fault: what is shared may explain all. */
const [NEARLY_ALL, MOST_LEADING] = [0.97, 5]
function leadingOf(entries: readonly Entry[], none: Entry): Entry[] {
  const whole = logSum(entries.map((e) => e.log))
  let held = 0
  const found: Entry[] = [none]
  for (const e of entries) {
    if (held > NEARLY_ALL || found.length > MOST_LEADING) break
    held += Math.exp(e.log - whole)
    if (e !== none) found.push(e)
  }
  return found
}
/**
 * How much better readings fit with one more shared fault, as far as the first two entries tell, nats: the first as it
 * is, the second for all others; and at best, if one more fault explained what is left. What cannot reach `least` is
 * not followed any further: both are then the most that they could be. `held`: the log of what all entries hold.
 */
export function worthOf(
  model: Model,
  units: readonly Unit[],
  now: readonly Entry[],
  shared: readonly FaultHypothesis[],
  { held, oneMore, least = -Infinity }: { readonly held: number; readonly oneMore: number; readonly least?: number },
): Fit {
  const logs = now.map((e) => e.log + e.cells.length * Math.log(oneMore))
  const rest = Math.max(logs[1] ?? -Infinity, logWithout(held, logs[0]!))
  const most = mostOf(units)
  const after = now.map((e, k): Fit => {
    // What an entry stands for beside its own, and its odds; against what all hold.
    const odds = e.odds + e.cells.length * Math.log(oneMore) + (k === 0 ? 0 : rest - logs[k]!) - held
    const { log, best, cut } = gainOf(model, units, [...e.cells, ...shared], least - odds)
    return { log: odds + log, best: odds + (cut ? most : best) }
  })
  return { log: logSum(after.map((f) => f.log)), best: logSum(after.map((f) => f.best)) }
}
/** The log of what is left of a sum without one of its parts. */
const logWithout = (sum: number, part: number): number =>
  part < sum ? sum + Math.log1p(-Math.exp(part - sum)) : -Infinity

/** Threads whose readings hang together: their faults are summed up, given what is shared. */
export class Group {
  readonly classes: readonly CellClass[]
  private readonly deep = new Map<string, Factor>()
  private readonly shallow = new Map<string, Factor>()
  readonly units: readonly Unit[]
  /** Odds, by part, of own cells that show in no reading, and sets of them by their number. */
  private readonly unfelt: ReadonlyMap<number, number>
  private readonly unfeltSum: Polynomial
  /** By class: how much better it alone explains the readings than nothing does, where no shared fault is. */
  private readonly alone: Float64Array

  /**
   * `hidden`: cells that no reading here shows. `linked`: groups that a shared fault leads to each other, so that each
   * cell may show in every reading.
   */
  constructor(
    readonly model: Model,
    readonly readings: readonly Observation[],
    classes: readonly CellClass[],
    readonly hidden: readonly FaultHypothesis[],
    private readonly linked: readonly Group[] = [],
  ) {
    this.units = linked.length > 0 ? linkedUnits(model, linked) : unitsOf(model, readings)
    this.classes = classes
    this.alone = Float64Array.from(classes, (c) =>
      linked.length > 0
        ? linked.reduce((s, g) => s + g.aloneOf(c.members[0]!), 0)
        : gainOf(model, this.units, [c.members[0]!]).log,
    )
    const unfelt = new Map<number, number>()
    for (const v of hidden) {
      const part = model.partOf[v.fault]!
      unfelt.set(part, (unfelt.get(part) ?? 0) + model.odds[v.index]!)
    }
    this.unfelt = unfelt
    this.unfeltSum = [...unfelt.values()].reduce(orOneMore, constant(1))
  }
  /** What one more shared fault is worth to the readings here beside others, by how all of them show. */
  readonly quick = new Map<string, Fit>()

  /**
   * Whether more than one fault of its own is looked at where no shared one shows: three together where they might hold
   * more than this, nats; Infinity where one at most is looked at.
   */
  floor = Infinity
  get isDeep(): boolean {
    return this.floor < Infinity
  }
  /** Always so from now on, down to `floor` and a little further; false where it was already. */
  deepen(floor: number): boolean {
    if (this.floor <= floor) return false
    this.floor = floor - FURTHER_NATS
    this.quick.clear()
    this.shallow.clear()
    this.deep.delete('')
    return true
  }

  private classOf: Int32Array | null = null
  /** What a cell of this group is worth by itself, where no shared fault is; nothing for another group's. */
  private aloneOf(cell: FaultHypothesis): number {
    if (!this.classOf) {
      this.classOf = new Int32Array(this.model.catalogue.variants.length).fill(-1)
      this.classes.forEach((c, k) => c.members.forEach((m) => (this.classOf![m.index] = k)))
    }
    const k = this.classOf[cell.index]!
    return k < 0 ? 0 : this.alone[k]!
  }

  /**
   * What the group holds beside some shared faults, as against nothing at all being wrong; `key` tells them apart.
   * `deep`: with two and three faults of its own, else with one at most, and with those sets that lead where no shared
   * one is.
   */
  factor(key: string, shared: readonly FaultHypothesis[], deep: boolean): Factor {
    const made = deep ? this.deep : this.shallow
    let known = made.get(key)
    if (!known) made.set(key, (known = this.sumUp(shared, deep)))
    return known
  }

  private sumUp(shared: readonly FaultHypothesis[], deep: boolean): Factor {
    const { model, classes } = this
    const gain = (own: readonly FaultHypothesis[], least = -Infinity) =>
      gainOf(model, this.units, [...own, ...shared], least)
    const none = gain([])
    const left = roomOf(model, this.units, shared)
    const counts = Math.log(this.linked.length > 0 ? COUNTS_LINKED : COUNTS)
    // A fault that cannot matter is worth what it is where no shared one is, but explains nothing any more.
    const singles = classes.map((c, k): Gain => {
      if (shared.length === 0) return { log: this.alone[k]!, best: none.best }
      return Math.log(c.odds * ONE_MORE) + this.roomFor(left, k) < counts
        ? { log: none.log + Math.min(0, this.alone[k]!), best: -Infinity }
        : gain([c.members[0]!], none.log + counts - Math.log(c.odds * ONE_MORE))
    })
    const sound = entryOf([], [], none, 0)
    const ones = classes.map((c, k) => entryOf([c.members[0]!], [c], singles[k]!, Math.log(c.odds)))
    const sums: Sums = { gain, shared, counts, held: logSum([sound, ...ones].map(weightOf)) }
    const pairs = deep ? this.pairsIn(sums, none.log, singles) : []
    const more = deep ? this.triplesIn(sums, pairs) : this.leadersIn(sums)
    const entries = [sound, ...ones, ...pairs.map((p) => p.entry), ...more]
    const top = entries.reduce((most, e) => Math.max(most, e.log), -Infinity)
    const kept = entries.filter((e) => e.log > sums.held + counts).sort((a, b) => b.log - a.log)
    const leading = leadingOf(kept, sound)
    const ceiling = leading.reduce((most, e) => Math.max(most, gain(e.cells).best), none.best)
    return { top, ...this.withUnfelt(...addedUp(entries, top)), entries: kept, leading, ceiling }
  }

  /** Two faults of the group together, where they may hold so much of what all hold. */
  private pairsIn(sums: Sums, none: number, singles: readonly Fit[]): Pair[] {
    const { classes, model } = this
    const { gain, shared, counts } = sums
    const found: Pair[] = []
    const leastNow = () => sums.held + counts - 2 * LOG_ONE_MORE
    const least = leastNow()
    const logOdds = classes.map((c) => Math.log(c.odds))
    const most = logOdds.reduce((m, o) => Math.max(m, o), -Infinity)
    // Those that could matter beside the likeliest other, if both together explained everything.
    const may = classes.flatMap((_, k) =>
      logOdds[k]! + most + Math.max(singles[k]!.log, singles[k]!.best) + SHARPER_NATS < least ? [] : [k],
    )
    const chance = leftByChance(this.units)
    const alone = may.map((k) =>
      singleOf(singles[k]!, roomOf(model, this.units, [classes[k]!.members[0]!, ...shared]), this.reachOf(k), chance),
    )
    const hopes: Hope[] = []
    may.forEach((i, m) => {
      for (let n = m; n < may.length; n++) {
        const j = may[n]!
        const log = logOdds[i]! + logOdds[j]!
        const { most, meet } = fitAtMost(alone[m]!, alone[n]!)
        if (log + most < least) continue
        // One that explains nothing beside the other.
        const [one, other] = [singles[i]!.log, singles[j]!.log]
        const apart = log + Math.max(one + Math.min(0, other - none), other + Math.min(0, one - none))
        hopes.push({ i, j, hope: log + most, apart: meet ? null : Math.min(log + most, apart) })
      }
    })
    // Those first that may hold most: the others are held against what they hold.
    hopes.sort((a, b) => b.hope - a.hope)
    let followed = 0
    for (const { i, j, hope, apart } of hopes) {
      const now = leastNow()
      if (hope < now) break
      const closely = followed < MOST_PAIRS && hope > now + Math.log(CLOSELY / COUNTS)
      if (closely) followed++
      const about = closely ? null : apart
      if (!closely && (about === null || about < now)) continue
      const [a, b] = [classes[i]!, classes[j]!]
      const other =
        i === j ? a.members.find((c) => model.partOf[c.fault] !== model.partOf[a.members[0]!.fault]) : b.members[0]!
      const odds = other ? distinctOdds([a, b]) : 0
      if (!other || odds <= 0) continue
      const cells = [a.members[0]!, other]
      const fit: Gain =
        about === null ? gain(cells, now - Math.log(odds)) : { log: about - logOdds[i]! - logOdds[j]!, best: -Infinity }
      const entry = entryOf(cells, [a, b], fit, Math.log(odds))
      if (fit.cut) continue
      sums.held = logSum([sums.held, weightOf(entry)])
      found.push({ pair: [i, j], entry, room: Math.max(0, fit.best - fit.log) })
    }
    return found
  }
  /** Sets of two and three that hold most where no shared fault is, beside some that are. */
  private leadersIn({ gain, shared, counts, held }: Sums): Entry[] {
    if (!this.isDeep || shared.length === 0) return []
    return this.factor('', [], true)
      .entries.filter((e) => e.classes.length > 1)
      .slice(0, MOST_LEADERS)
      .flatMap((e) => {
        const fit = gain(e.cells, held + counts - e.odds)
        return fit.cut ? [] : [entryOf(e.cells, e.classes, fit, e.odds)]
      })
  }
  /** How much better a class could make the readings fit than what leaves this room, nats. */
  private roomFor(room: Room, k: number): number {
    return roomFor(room, this.reachOf(k))
  }
  private reachOf(k: number): Reach {
    this.reaches ??= reachesOf(this.model, this.units, this.classes)
    return this.reaches[k]!
  }
  private reaches: readonly Reach[] | null = null

  /** The same with the faults that no reading shows: beside one that shows at any other part, beside more at any. */
  private withUnfelt(felt: Polynomial, byPart: ReadonlyMap<number, Polynomial>): Pick<Factor, 'sum' | 'byPart'> {
    const { unfelt, unfeltSum } = this
    const sum = times(felt, unfeltSum)
    const all = new Map<number, Polynomial>()
    for (const [part, p] of byPart) {
      const held = times(p, unfeltSum)
      const odds = unfelt.get(part)
      if (odds !== undefined) {
        const one = zero()
        one[1] = p[1]!
        for (const list of [sum, held]) {
          addTo(list, times(one, unfeltSum), -1)
          addTo(list, times(one, withoutOne(unfeltSum, odds)))
        }
      }
      all.set(part, held)
    }
    for (const [part, odds] of unfelt) {
      const without = zero()
      addTo(without, felt)
      const own = byPart.get(part)
      if (own) addTo(without, own, -1)
      const p = zero()
      addTo(p, times(without, withoutOne(unfeltSum, odds)), odds, 1)
      const known = all.get(part)
      if (known) addTo(known, p)
      else all.set(part, p)
    }
    return { sum, byPart: all }
  }

  /** Sets of three that grow out of the pairs that lead. */
  private triplesIn(sums: Sums, pairs: readonly Pair[]): Entry[] {
    const { gain, shared } = sums
    const found: Entry[] = []
    const seen = new Set<string>()
    const floor = shared.length === 0 && this.isDeep ? this.floor : -Infinity
    const most = this.classes.reduce((m, c) => Math.max(m, Math.log(c.odds)), -Infinity)
    for (const { pair, entry, room } of pairs) {
      const hope = weightOf(entry) + room + SHARPER_NATS + most + LOG_ONE_MORE
      if (hope < Math.max(floor, sums.held + Math.log(LEADS))) continue
      const left = roomOf(this.model, this.units, [...entry.cells, ...shared])
      this.classes.forEach((c, k) => {
        const more = Math.log(c.odds * ONE_MORE) + this.roomFor(left, k)
        if (weightOf(entry) + more < Math.max(floor, sums.held + Math.log(LEADS_THREE))) return
        const key = [...pair, k].sort((a, b) => a - b).join()
        if (pair.includes(k) || seen.has(key)) return
        seen.add(key)
        const three = [...pair, k].map((i) => this.classes[i]!)
        const odds = distinctOdds(three)
        if (odds <= 0) return
        const cells = three.map((x) => x.members[0]!)
        const fit = gain(cells, sums.held + Math.log(LEADS_THREE) - Math.log(odds))
        if (fit.cut) return
        const made = entryOf(cells, three, fit, Math.log(odds))
        sums.held = logSum([sums.held, weightOf(made)])
        found.push(made)
      })
    }
    return found
  }
}

const entryOf = (
  cells: readonly FaultHypothesis[],
  classes: readonly CellClass[],
  { log, cut }: Gain,
  odds: number,
): Entry => ({ cells, classes, log: cut ? -Infinity : log + odds, odds })
const LOG_ONE_MORE = Math.log(ONE_MORE)
/** The log of what an entry holds about, whatever the number of faults. */
const weightOf = (e: Entry): number => e.log + e.cells.length * LOG_ONE_MORE

/** Entries by the number of their faults, in all and by part, times exp(`top`). */
function addedUp(entries: readonly Entry[], top: number): [Polynomial, Map<number, Polynomial>] {
  const sum = zero()
  const byPart = new Map<number, Polynomial>()
  for (const { classes, log, odds } of entries) {
    sum[classes.length]! += Math.exp(log - top)
    for (const [part, o] of classes.length === 1 ? classes[0]!.parts : distinctByPart(classes)) {
      let p = byPart.get(part)
      if (!p) byPart.set(part, (p = zero()))
      p[classes.length]! += o * Math.exp(log - odds - top)
    }
  }
  return [sum, byPart]
}

/** Two classes that might hold something together: at most, and about, where no reading shows both of them. */
interface Hope {
  readonly i: number
  readonly j: number
  readonly hope: number
  readonly apart: number | null
}
/** Two classes of one group together. */
interface Pair {
  readonly pair: readonly [number, number]
  readonly entry: Entry
  /** How much better the readings could fit, nats. */
  readonly room: number
}
/** A sum under way; `held`: the log of what all entries hold so far. */
interface Sums {
  readonly gain: (own: readonly FaultHypothesis[], least?: number) => Gain
  readonly shared: readonly FaultHypothesis[]
  readonly counts: number
  held: number
}
