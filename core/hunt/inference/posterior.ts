import { DisjointSets, type TerminalId } from '../../site'
import type { Beliefs, Explanation, Observation } from '../beliefs'
import type { HuntContext } from '../context'
import type { Predictor } from '../memoize'
import { logSum } from '../normal'
import type { Catalogue, Fault, FaultHypothesis } from '../variants'
import type { CoilPriors } from '../weigh'
import { countWeights } from './count'
import { distinctByPart, distinctOdds } from './distinct'
import { classesOf, unfeltOf, type CellClass, type Model } from './classes'
import { Group, logOf, ONE_MORE, type Entry, type Factor } from './group'
import { addTo, constant, dot, orOneMore, othersOf, times, withoutOne, zero, type Polynomial } from './polynomial'
import { ownersOf, threadsOf } from './scope'

/** Sets of shared faults are looked at as far as this below the best, nats. */
const LOOKED_AT_NATS = 12
/** A shared fault that is worth so much beside a set is one of a set of its own; others stand beside it as they are. */
const STRONG = 0.02
/** A shared fault is looked at closely where a first look gives it so much. */
const CLOSELY = 5e-3
/** A shared fault that is worth less than this explains next to nothing, nats. */
const EXPLAINS_NATS = 3
const [MOST_SHARED, MOST_SETS] = [5, 600]
/** Explanations that are kept, and how far below the best they lie, nats. */
const [KEPT, KEPT_NATS] = [400, 9]

/** A set of shared faults, what the threads hold beside it, and the shared faults that may be there besides. */
interface Case {
  readonly classes: readonly number[]
  readonly factors: readonly Factor[]
  /** exp(−`top`) of the product of all factors and of the set's own odds and readings. */
  readonly top: number
  readonly product: Polynomial
  readonly beside: Beside
  readonly log: number
}
interface Beside {
  /** By part: what each is worth, and sets of them by their number. */
  readonly parts: ReadonlyMap<number, number>
  readonly sum: Polynomial
  readonly entries: readonly Entry[]
}

/**
 * The belief in every fault after some readings, for any number of faults: given the faults that several threads
 * share, each thread's own are summed up by themselves, by their number; sets of shared ones are looked at from the
 * likeliest on.
 */
export class FactorPosterior {
  private readonly taken: Observation[] = []
  private readonly owners: readonly (TerminalId | null)[]
  private supply_V: number | null = null

  constructor(
    private readonly context: HuntContext,
    private readonly catalogue: Catalogue,
    private readonly predictor: Predictor,
    private readonly coils: CoilPriors,
    private readonly nominal_V: number,
    private readonly count: readonly number[],
  ) {
    this.owners = ownersOf(context, catalogue.faults)
  }

  /** Adds a reading; one whose test says nothing here is left out. */
  add(reading: Observation): boolean {
    if (this.predictor.base(reading.test) === null) return false
    if (reading.test.kind === 'supply' && reading.value.kind === 'volt') this.supply_V = reading.value.volt
    this.taken.push(reading)
    return true
  }

  beliefs(): Omit<Beliefs, 'strain'> {
    const sum = new Summing(this.context, this.model(), this.taken, this.owners, this.count)
    return sum.beliefs()
  }

  private model(): Model {
    const { catalogue, predictor, coils } = this
    const whole = catalogue.faults.reduce((s, f) => s + f.prior, 0)
    const numbers = new Map(catalogue.keys.map((key, n) => [key, n]))
    return {
      catalogue,
      predictor,
      coils,
      odds: Float64Array.from(catalogue.variants, (v) => (catalogue.faults[v.fault]!.prior / whole) * v.share),
      partOf: Int32Array.from(catalogue.faults, (f) => numbers.get(f.key)!),
      supply_V: { read: this.supply_V, nominal: this.nominal_V },
    }
  }
}

/** What holds most in some threads, taken together. */
const together = (factors: readonly Factor[]): Entry[] =>
  factors.reduce<Entry[]>(
    (list, f) =>
      list.flatMap((e) =>
        f.leading
          .slice(0, 3)
          .map((own) => ({ cells: [...e.cells, ...own.cells], log: e.log + own.log, odds: e.odds + own.odds })),
      ),
    [{ cells: [], log: 0, odds: 0 }],
  )

/** A group with the numbers of those it was made from. */
interface Placed {
  readonly of: readonly number[]
  readonly group: Group
  readonly linked: boolean
}

class Summing {
  private readonly groups: Group[] = []
  private readonly merged = new Map<string, Placed>()
  private readonly apart: readonly Observation[]
  private readonly apartBase: number
  private readonly shared: readonly CellClass[]
  /** By class of shared faults: the groups whose currents it leads to each other, none for most. */
  private readonly links: readonly (readonly number[])[]
  /** By group and class: how it shows there; 0 where it does not. */
  private readonly effects: readonly Int32Array[]
  private readonly showsApart: readonly boolean[]
  private readonly isTouch: readonly boolean[]
  private readonly apartKnown = new Map<string, number>()
  private readonly quick = new Map<string, number>()
  private readonly placed: readonly Placed[]
  /** What one more fault is worth about, beside its odds. */
  private readonly oneMore: number
  private readonly weights: Polynomial
  /** By part: odds of its shared cells that no reading shows. */
  private readonly unfelt: ReadonlyMap<number, number>

  constructor(
    context: HuntContext,
    private readonly model: Model,
    readings: readonly Observation[],
    owners: readonly (TerminalId | null)[],
    count: readonly number[],
  ) {
    const { catalogue, odds, partOf, predictor } = model
    const faultsAt = (splice: string | null) =>
      catalogue.faults.filter((f) => f.where.kind === 'joint' && f.where.splice === splice)
    const ownersAt = (splice: string) => faultsAt(splice).map((f) => owners[f.index]!)
    const threads = threadsOf(context, ownersAt)
    // A joint that was looked at and holds ends of several threads is shared by them.
    const jointShared = ({ test }: Observation): string | null =>
      (test.kind === 'look' || test.kind === 'remake') && new Set(ownersAt(test.splice)).size > 1 ? test.splice : null
    const lookedAt = new Set(readings.flatMap((r) => faultsAt(jointShared(r)).map((f) => f.index)))
    const homes = readings.map((r) => (jointShared(r) === null ? threads(r.test) : []))
    const joined = new DisjointSets<TerminalId>()
    for (const home of homes) for (const t of home) joined.join(home[0]!, t)
    const byGroup = new Map<TerminalId, Observation[]>()
    readings.forEach((r, i) => {
      const home = homes[i]!
      if (home.length > 0) byGroup.set(joined.of(home[0]!), [...(byGroup.get(joined.of(home[0]!)) ?? []), r])
    })
    this.apart = readings.filter((_, i) => homes[i]!.length === 0)
    this.apartBase = logOf(model, this.apart, [])
    // A leak shows in every reading to earth, but only there.
    const isFelt = (f: Fault) => readings.some(({ test }) => predictor.mayAffect(test, f))
    const own = new Map<TerminalId, FaultHypothesis[]>()
    const shared: FaultHypothesis[] = []
    for (const f of catalogue.faults) {
      const everywhere = lookedAt.has(f.index) || (f.cause === 'leak' && isFelt(f))
      const owner = everywhere ? null : owners[f.index]!
      if (owner === null) shared.push(...f.variants)
      else {
        const g = joined.of(owner)
        const list = own.get(g)
        if (list) list.push(...f.variants)
        else own.set(g, [...f.variants])
      }
    }
    const all = new Set([...byGroup.keys(), ...own.keys()])
    const names = [...all]
    for (const t of names) this.groups.push(new Group(model, byGroup.get(t) ?? [], own.get(t) ?? []))
    const groupOf = new Map(names.map((t, k) => [t, k]))
    const groupAt = (t: TerminalId | null) => (t === null ? undefined : groupOf.get(joined.of(t)))
    this.shared = classesOf(model, shared, readings)
    this.placed = this.groups.map((group, k) => ({ of: [k], group, linked: false }))
    const shows = (list: readonly Observation[], f: Fault) => list.some(({ test }) => predictor.mayAffect(test, f))
    this.links = this.shared.map(({ members }) => {
      const fault = catalogue.faults[members[0]!.fault]!
      if (!fault.links) return []
      const { where } = fault
      const ends = where.kind === 'pair' ? [where.one, where.two] : fault.besides.map((d) => context.terminalOf(d))
      const at = this.groups.flatMap((g, k) => (shows(g.readings, fault) ? [k] : []))
      return [...new Set([...ends.flatMap((t) => groupAt(t) ?? []), ...at])]
    })
    this.isTouch = this.shared.map(({ members }) => catalogue.faults[members[0]!.fault]!.where.kind === 'touch')
    this.showsApart = this.shared.map(({ members }) => shows(this.apart, catalogue.faults[members[0]!.fault]!))
    this.effects = this.groups.map((g) => {
      const numbers = new Map<string, number>([['', 0]])
      return Int32Array.from(this.shared, ({ members }) => {
        const key = g.effectOf(members[0]!)
        if (!numbers.has(key)) numbers.set(key, numbers.size)
        return numbers.get(key)!
      })
    })
    this.unfelt = unfeltOf(model, shared, this.shared)
    const partOdds = new Float64Array(catalogue.keys.length)
    catalogue.variants.forEach((v) => {
      partOdds[partOf[v.fault]!]! += odds[v.index]!
    })
    this.weights = countWeights(count, partOdds)
    this.oneMore = ONE_MORE
    const held = this.groups.reduce((p, g) => times(p, g.factor('', []).sum), constant(1))
    const likeliest = held.reduce((m, h, k) => (h * this.weights[k]! > held[m]! * this.weights[m]! ? k : m), 0)
    const [now, next] = [this.weights[likeliest]!, this.weights[likeliest + 1] ?? 0]
    if (next > 0) this.oneMore = next / now
  }

  /** The groups as some shared faults leave them: those that a link joins are one; with the base groups of each. */
  private groupsUnder(classes: readonly number[]): readonly Placed[] {
    const links = classes.map((c) => this.links[c]!).filter((groups) => groups.length > 0)
    if (links.length === 0) return this.placed
    const joined = new DisjointSets<number>()
    for (const groups of links) for (const g of groups) joined.join(groups[0]!, g)
    const inLink = new Set(links.flat())
    const together = new Map<number, number[]>()
    this.groups.forEach((_, k) => together.set(joined.of(k), [...(together.get(joined.of(k)) ?? []), k]))
    return [...together.values()].map((of) => {
      if (!inLink.has(of[0]!)) return this.placed[of[0]!]!
      const key = of.join()
      const known = this.merged.get(key)
      if (known) return known
      const parts = of.map((k) => this.groups[k]!)
      const made: Placed = {
        of,
        linked: true,
        group: new Group(
          this.model,
          parts.flatMap((g) => g.readings),
          parts.flatMap((g) => g.cells),
          true,
        ),
      }
      this.merged.set(key, made)
      return made
    })
  }
  /** The shared faults that show in a group, and a name for how they do. */
  private feltIn({ of, linked }: Placed, classes: readonly number[]): number[] {
    return linked
      ? classes.filter((c) => of.some((g) => this.effects[g]![c]! > 0 || this.links[c]!.includes(g)))
      : classes.filter((c) => this.effects[of[0]!]![c]! > 0)
  }
  private keyIn({ of, linked }: Placed, felt: readonly number[]): string {
    return linked ? felt.join() : felt.map((c) => this.effects[of[0]!]![c]!).join()
  }
  private factorOf(place: Placed, classes: readonly number[]): Factor {
    const felt = this.feltIn(place, classes)
    return place.group.factor(this.keyIn(place, felt), felt.length === 0 ? [] : this.cellsOf(felt))
  }
  private apartOf(classes: readonly number[]): number {
    const felt = classes.filter((c) => this.showsApart[c])
    if (felt.length === 0) return 0
    const key = felt.join()
    const known = this.apartKnown.get(key)
    if (known !== undefined) return known
    const made = logOf(this.model, this.apart, this.cellsOf(felt)) - this.apartBase
    this.apartKnown.set(key, made)
    return made
  }

  /**
   * What one more shared fault is worth beside a set, its odds left out: how much better all readings then fit, nats;
   * `closely`: with all that the threads may have of their own, else with what they have most likely.
   */
  private worth(classes: readonly number[], more: number, closely: boolean): number {
    const now = [...classes, more]
    const apart = this.apartOf(now) - this.apartOf(classes)
    const before = this.groupsUnder(classes)
    if (this.links[more]!.length === 0)
      return before.reduce((log, place) => {
        if (!place.of.some((g) => this.effects[g]![more]! > 0)) return log
        const held = this.factorOf(place, classes)
        return (
          log +
          (closely ? this.valueOf(this.factorOf(place, now)) - this.valueOf(held) : this.quickly(place, now, held))
        )
      }, apart)
    const kept = new Set(before)
    const changed = this.groupsUnder(now).filter((p) => !kept.has(p) || p.of.some((g) => this.effects[g]![more]! > 0))
    return changed.reduce((log, place) => {
      const parts = before.filter((p) => place.of.includes(p.of[0]!)).map((p) => this.factorOf(p, classes))
      return (
        log +
        (closely
          ? this.valueOf(this.factorOf(place, now)) - parts.reduce((s, f) => s + this.valueOf(f), 0)
          : place.group.worthOf(together(parts), this.cellsOf(this.feltIn(place, now)), this.oneMore))
      )
    }, apart)
  }
  private quickly(place: Placed, now: readonly number[], held: Factor): number {
    const felt = this.feltIn(place, now)
    const key = `${place.of.join()} ${this.keyIn(place, felt)}`
    const known = this.quick.get(key)
    if (known !== undefined) return known
    const made = place.group.worthOf(held.leading, this.cellsOf(felt), this.oneMore)
    this.quick.set(key, made)
    return made
  }
  /** The log of a factor, each fault being worth `oneMore` beside its odds. */
  private valueOf({ top, sum }: Factor): number {
    let [value, power] = [0, 1]
    for (const s of sum) {
      value += s * power
      power *= this.oneMore
    }
    return top + Math.log(value)
  }

  /** A cell for each class; of a class that comes twice, cells at two parts. */
  private cellsOf(classes: readonly number[]): FaultHypothesis[] {
    const taken = new Set<number>()
    return classes.map((c) => {
      const { members } = this.shared[c]!
      const cell = members.find((m) => !taken.has(this.model.partOf[m.fault]!)) ?? members[0]!
      taken.add(this.model.partOf[cell.fault]!)
      return cell
    })
  }
  private caseOf(classes: readonly number[], beside: Beside): Case {
    const factors = this.groupsUnder(classes).map((g) => this.factorOf(g, classes))
    const odds = Math.log(distinctOdds(classes.map((c) => this.shared[c]!)))
    const top = factors.reduce((s, f) => s + f.top, 0) + this.apartOf(classes) + odds
    const product = factors.reduce((p, f) => times(p, f.sum), constant(1))
    const sum = zero()
    addTo(sum, times(product, beside.sum), 1, classes.length)
    return { classes, factors, top, product, beside, log: top + Math.log(dot(this.weights, sum)) }
  }

  /**
   * Sets of shared faults as a tree: a set has one branch for every other that is strong beside it, without those of
   * the branches before; what is weak stands beside the set, each by itself.
   */
  private cases(): Case[] {
    const found: Case[] = []
    let best = -Infinity
    const visit = (
      classes: readonly number[],
      left: ReadonlySet<number>,
      before: ReadonlyMap<number, number>,
    ): void => {
      const { shared, oneMore } = this
      const used = new Set(classes.flatMap((c) => [...shared[c]!.parts.keys()]))
      const worths: { readonly c: number; readonly odds: number; readonly worth: number }[] = []
      for (const c of left) {
        const { odds, parts } = shared[c]!
        if (parts.size === 1 && used.has([...parts.keys()][0]!)) continue
        const known = before.get(c)
        if (known !== undefined && !this.isChanged(c, classes.at(-1)!, before.get(classes.at(-1)!)!)) {
          worths.push({ c, odds, worth: known })
          continue
        }
        let worth = this.worth(classes, c, false)
        if (odds * Math.exp(worth) * oneMore > CLOSELY) worth = this.worth(classes, c, true)
        worths.push({ c, odds, worth })
      }
      const now = new Map(worths.map((w) => [w.c, w.worth]))
      worths.sort((a, b) => b.odds * Math.exp(b.worth) - a.odds * Math.exp(a.worth))
      const isStrong = (w: (typeof worths)[number]) => w.odds * Math.exp(w.worth) * oneMore > STRONG
      const strong = classes.length < MOST_SHARED ? worths.filter(isStrong) : []
      const here = this.caseOf(classes, this.besideOf(worths.slice(strong.length), used))
      found.push(here)
      best = Math.max(best, here.log)
      const rest = new Set(left)
      for (const { c, odds, worth } of strong) {
        rest.delete(c)
        // What a branch holds: itself once more, each of its kind being worth about so much.
        if (here.log + Math.log(odds * oneMore) + worth < best - LOOKED_AT_NATS || found.length > MOST_SETS) continue
        visit([...classes, c], new Set(rest), now)
      }
    }
    visit([], new Set(this.shared.keys()), new Map())
    return found.filter((c) => c.log > best - LOOKED_AT_NATS)
  }

  /**
   * Whether what a shared fault is worth may be another with one more beside it, itself worth so much: they show in the
   * same readings. Of the many conductors that could touch none is looked at again for one that explains next to
   * nothing.
   */
  private isChanged(c: number, more: number, worth: number): boolean {
    if (this.isTouch[c] && worth < EXPLAINS_NATS) return false
    if (this.showsApart[c] && this.showsApart[more]) return true
    const showsIn = (k: number, g: number) => this.effects[g]![k]! > 0 || this.links[k]!.includes(g)
    return this.groups.some((_, g) => showsIn(c, g) && showsIn(more, g))
  }

  /** Shared faults that stand beside a set: those that no reading shows, and those that are worth little. */
  private besideOf(weak: readonly { readonly c: number; readonly worth: number }[], used: ReadonlySet<number>): Beside {
    const parts = new Map([...this.unfelt].filter(([part]) => !used.has(part)))
    const entries: Entry[] = [{ cells: [], log: 0, odds: 0 }]
    for (const { c, worth } of weak) {
      const w = Math.exp(worth)
      const { odds, members } = this.shared[c]!
      for (const [part, o] of this.shared[c]!.parts)
        if (!used.has(part)) parts.set(part, (parts.get(part) ?? 0) + o * w)
      entries.push({ cells: [members[0]!], log: Math.log(odds) + worth, odds: Math.log(odds) })
    }
    return { parts, entries, sum: [...parts.values()].reduce(orOneMore, constant(1)) }
  }

  beliefs(): Omit<Beliefs, 'strain'> {
    const { model, weights } = this
    const cases = this.cases()
    const total = logSum(cases.map((c) => c.log))
    const sums = new Float64Array(model.catalogue.keys.length)
    for (const c of cases) {
      const scale = Math.exp(c.top - total)
      const { others } = othersOf(c.factors.map((f) => f.sum))
      const shift = c.classes.length
      const held = (p: Polynomial): number => {
        const shifted = zero()
        addTo(shifted, times(p, c.beside.sum), 1, shift)
        return scale * dot(weights, shifted)
      }
      c.factors.forEach((f, k) => {
        for (const [part, p] of f.byPart) sums[part]! += held(times(p, others[k]!))
      })
      const sets = c.classes.map((k) => this.shared[k]!)
      const whole = distinctOdds(sets)
      for (const [part, o] of distinctByPart(sets)) sums[part]! += (Math.exp(c.log - total) * o) / whole
      for (const [part, o] of c.beside.parts) {
        const p = zero()
        addTo(p, c.product, o, 1)
        const all = zero()
        addTo(all, times(p, withoutOne(c.beside.sum, o)), 1, shift)
        sums[part]! += scale * dot(weights, all)
      }
    }
    const parts = new Map<string, number>()
    model.catalogue.keys.forEach((key, part) => {
      if (sums[part]! > 1e-6) parts.set(key, Math.min(1, sums[part]!))
    })
    const none = cases.find((c) => c.classes.length === 0)
    const nothing = none
      ? Math.exp(none.top + Math.log(weights[0]!) + none.factors.reduce((s, f) => s + Math.log(f.sum[0]!), 0) - total)
      : 0
    return { parts, nothing, explanations: this.explanations(cases, total) }
  }

  /** Whole explanations from the likeliest on: a shared set with one entry of every thread. */
  private explanations(cases: readonly Case[], total: number): Explanation[] {
    const found: { faults: readonly FaultHypothesis[]; log: number }[] = []
    for (const c of cases) {
      const shared: readonly FaultHypothesis[] = this.cellsOf(c.classes)
      let list = [{ faults: shared, log: c.top - c.factors.reduce((s, f) => s + f.top, 0) }]
      for (const f of [...c.factors, c.beside]) {
        const entries = [...f.entries].sort((a, b) => b.log - a.log)
        const next = list.flatMap((e) =>
          entries.slice(0, KEPT).map((own) => ({ faults: [...e.faults, ...own.cells], log: e.log + own.log })),
        )
        const most = next.reduce((m, e) => Math.max(m, e.log), -Infinity)
        list = next
          .filter((e) => e.log > most - KEPT_NATS)
          .sort((a, b) => b.log - a.log)
          .slice(0, KEPT)
      }
      found.push(...list.map((e) => ({ ...e, log: e.log + Math.log(this.weights[e.faults.length] || 1e-300) })))
    }
    return found
      .filter((e) => e.log > total - KEPT_NATS)
      .sort((a, b) => b.log - a.log)
      .slice(0, KEPT)
      .map((e) => ({ faults: e.faults, p: Math.exp(e.log - total) }))
  }
}
