import { DisjointSets } from '../../site'
import { distinctOdds } from './distinct'
import type { Entry, Factor } from './group'
import { DEEPLY_NATS, type Ground, type SharedSet } from './ground'
import { addTo, constant, dot, orOneMore, times, zero, type Polynomial } from './polynomial'
import type { SharedClass } from './scene'

/** Sets of shared faults are looked at as far as this below the best, nats. */
const LOOKED_AT_NATS = 10
const [MOST_SHARED, MOST_SETS] = [6, 400]
/** Beside one set so many are looked at closely, those first that might hold most. */
const MOST_CLOSELY = 12

/** A set of shared faults, what the groups hold beside it, and the shared faults that may be there besides. */
export interface Case {
  readonly set: SharedSet
  readonly factors: readonly Factor[]
  /** exp(−`top`) of the product of all factors and of the set's own odds. */
  readonly top: number
  readonly beside: Beside
  /** By the number of faults, times exp(`top`). */
  readonly sum: Polynomial
}
interface Beside {
  /** By part: what each is worth, and sets of them by their number. */
  readonly parts: ReadonlyMap<number, number>
  readonly sum: Polynomial
  readonly entries: readonly Entry[]
}
/** The log of what a case holds. */
export const logOfCase = (c: Case, weights: Polynomial): number => c.top + Math.log(dot(weights, c.sum))

/** Groups that strong shared faults couple: what all of them hold, whatever the others do. */
export interface Island {
  readonly groups: readonly number[]
  readonly cases: readonly Case[]
}

/** Groups by what couples them; `weights`: what a set of k faults is worth beside the product of its odds. */
export function islandsOf(ground: Ground, weights: Polynomial): readonly Island[] {
  const { scene } = ground
  const joined = new DisjointSets<number>()
  const couple = (groups: readonly number[]) => {
    for (const g of groups) joined.join(groups[0]!, g)
  }
  for (const c of scene.shared) if (ground.isStrong(c, ground.alone[c.index]!)) couple(c.touched)
  const explored = new Map<string, Island>()
  for (;;) {
    const members = new Map<number, number[]>()
    scene.groups.forEach((_, g) => members.set(joined.of(g), [...(members.get(joined.of(g)) ?? []), g]))
    const open = [...members.values()].find((groups) => !explored.has(groups.join()))
    if (!open) return [...members.values()].map((groups) => explored.get(groups.join())!)
    const found = new Search(ground, open, weights).run()
    if (found.kind === 'reaches') couple([open[0]!, ...found.groups])
    else explored.set(open.join(), { groups: open, cases: found.cases })
  }
}

/** A set that is still to be looked at: what may be added to it, and what it holds about. */
interface Branch {
  readonly set: SharedSet
  readonly left: ReadonlySet<number>
  /** By shared fault: what it was worth beside the set without its last one; null where there is none. */
  readonly before: Float64Array | null
  readonly log: number
}

/** All sets of an island; or groups outside of it that a strong shared fault touches. */
type Found = { readonly kind: 'cases'; readonly cases: readonly Case[] } | Reaches
interface Reaches {
  readonly kind: 'reaches'
  readonly groups: readonly number[]
}

/**
 * Sets of an island's shared faults as a tree: a set has one branch for every other that is strong beside it, without
 * those of the branches before; what is weak stands beside the set, each by itself.
 */
class Search {
  private readonly found: Case[] = []
  /** The most that any set holds about; and any that the tree has come to: what leads on to the best lies below it. */
  private best = -Infinity
  private reached = -Infinity
  /** The same by group: of groups that are joined, and of a shared fault's odds, each an even share. */
  private bestByGroup = new Float64Array(0)
  private readonly inside: ReadonlySet<number>
  private readonly own: readonly SharedClass[]

  constructor(
    private readonly ground: Ground,
    private readonly groups: readonly number[],
    private readonly weights: Polynomial,
  ) {
    this.inside = new Set(groups)
    this.own = ground.scene.shared.filter((c) => c.touched.some((g) => this.inside.has(g)))
  }

  /** The likeliest sets first: their branches are held against the best that was come to. */
  run(): Found {
    const root: Branch = { set: [], left: new Set(this.own.map((c) => c.index)), before: null, log: Infinity }
    do {
      this.best = -Infinity
      this.dive(root)
    } while (this.ground.deepen(this.groups, this.bestByGroup))
    const open = [root]
    while (open.length > 0 && this.found.length < MOST_SETS) {
      const at = open.reduce((m, b, k) => (b.log > open[m]!.log ? k : m), 0)
      const [next] = open.splice(at, 1) as [Branch]
      if (next.log < this.reached - LOOKED_AT_NATS) break
      const branches = this.visit(next)
      if (branches.kind === 'reaches') return branches
      open.push(...branches.list)
    }
    const best = this.found.reduce((m, c) => Math.max(m, logOfCase(c, this.weights)), -Infinity)
    const cases = this.found.flatMap((c) => {
      const log = logOfCase(c, this.weights)
      if (log < best - LOOKED_AT_NATS) return []
      const room = c.factors.reduce((sum, f) => sum + this.ground.roomIn(f), 0)
      return [log + room > best - DEEPLY_NATS ? this.caseOf(c.set, c.beside, true) : c]
    })
    return { kind: 'cases', cases }
  }

  /**
   * About what the likeliest set holds: one shared fault after the other, the likeliest at a first look, so that no
   * close look is spent on what could not come near it.
   */
  private dive(from: Branch): void {
    for (let at = from; ;) {
      const parts = partsOf(at.set)
      const now = this.worths(at, parts, null)
      const { value } = this.noted(this.caseOf(at.set, NOTHING_BESIDE))
      const [first] = this.strongOf(at, parts, now)
      if (!first || value < this.best - LOOKED_AT_NATS) return
      const left = new Set(at.left)
      left.delete(first.index)
      at = { set: [...at.set, first], left, before: now, log: value }
    }
  }
  /** About what a set holds, in all and by group; the most of all is kept. */
  private noted(c: Case): { readonly value: number; readonly byGroup: Float64Array } {
    const { ground } = this
    const byGroup = new Float64Array(ground.scene.groups.length)
    const spread = (groups: readonly number[], log: number) =>
      groups.forEach((g) => (byGroup[g]! += log / groups.length))
    ground.groupsUnder(this.groups, c.set).forEach((p, k) => spread(p.of, ground.valueOf(c.factors[k]!)))
    for (const s of c.set) spread(s.touched, Math.log(s.odds * ground.oneMore))
    const value = this.valueOf(c)
    if (value > this.best) [this.best, this.bestByGroup] = [value, byGroup]
    return { value, byGroup }
  }
  /** Shared faults that make a set of their own with this one, the likeliest first. */
  private strongOf({ set, left }: Branch, parts: ReadonlySet<number>, now: Float64Array): SharedClass[] {
    if (set.length >= MOST_SHARED) return []
    return this.own
      .filter((c) => left.has(c.index) && !isTaken(c, parts) && this.ground.isStrong(c, now[c.index]!))
      .sort((a, b) => this.weightOf(b, now) - this.weightOf(a, now))
  }
  private weightOf(c: SharedClass, now: Float64Array): number {
    return c.odds * Math.exp(now[c.index]!) * this.ground.oneMore
  }

  private visit(at: Branch): { readonly kind: 'branches'; readonly list: readonly Branch[] } | Reaches {
    const { set, left } = at
    const parts = partsOf(set)
    const { byGroup } = this.noted(this.caseOf(set, NOTHING_BESIDE))
    const now = this.worths(at, parts, byGroup)
    const strong = this.strongOf(at, parts, now)
    const outside = strong.flatMap((c) => c.touched.filter((g) => !this.inside.has(g)))
    if (outside.length > 0) return { kind: 'reaches', groups: outside }
    const strongly = new Set(strong)
    const weak = this.own.filter((c) => left.has(c.index) && !isTaken(c, parts) && !strongly.has(c))
    const here = this.caseOf(set, this.besideOf(weak, now, parts))
    this.found.push(here)
    const { value } = this.noted(here)
    this.reached = Math.max(this.reached, value)
    const rest = new Set(left)
    return {
      kind: 'branches',
      list: strong.flatMap((c): Branch[] => {
        rest.delete(c.index)
        // What a branch holds: itself once more, each of its kind being worth about so much.
        const held = value + Math.log(this.weightOf(c, now))
        return held < this.reached - LOOKED_AT_NATS
          ? []
          : [{ set: [...set, c], left: new Set(rest), before: now, log: held }]
      }),
    }
  }

  /**
   * What each shared fault is worth beside a set: as before its last one, but where that shows in the same readings.
   * `byGroup`: what the set holds by group; no close look is taken where it is null.
   */
  private worths(
    { set, left, before }: Branch,
    parts: ReadonlySet<number>,
    byGroup: Float64Array | null,
  ): Float64Array {
    const { ground } = this
    const last = set.at(-1)
    const changed = last && new Set(ground.closed(last.touched, set))
    const slacks = ground.slacksUnder(this.groups, set)
    const now = (before ?? ground.alone).slice()
    const closely: { readonly c: SharedClass; readonly most: number }[] = []
    for (const c of this.own) {
      if (!left.has(c.index) || isTaken(c, parts) || (changed && !c.touched.some((g) => changed.has(g)))) continue
      const was = before ? before[c.index]! : Infinity
      const below = () =>
        byGroup ? ground.closed(c.touched, set).reduce((s, g) => s + this.bestByGroup[g]! - byGroup[g]!, 0) : Infinity
      // One that could explain next to nothing more explains nothing.
      if (!ground.couldCount(c, slacks)) {
        if (before) now[c.index] = Math.min(0, was)
        continue
      }
      const worth = ground.worth(set, c, was, Math.max(0, below()))
      now[c.index] = worth.log
      if (worth.closely !== null) closely.push({ c, most: worth.closely })
    }
    closely.sort((a, b) => b.most - a.most)
    for (const { c } of closely.slice(0, MOST_CLOSELY)) now[c.index] = ground.closeLook(set, c)
    return now
  }

  /** The log of what a case holds about, each fault being worth `oneMore`: also where there are more than may be. */
  private valueOf({ set, factors, top }: Case): number {
    const { ground } = this
    const own = factors.reduce((s, f) => s + ground.valueOf(f) - f.top, 0)
    return top + own + set.length * Math.log(ground.oneMore)
  }

  private caseOf(set: SharedSet, beside: Beside, deep = false): Case {
    const { ground } = this
    const factors = ground.groupsUnder(this.groups, set).map((p) => ground.factorOf(p, set, deep))
    const top = factors.reduce((s, f) => s + f.top, 0) + Math.log(Math.max(distinctOdds(set), 1e-300))
    const product = factors.reduce((p, f) => times(p, f.sum), constant(1))
    const sum = zero()
    addTo(sum, times(product, beside.sum), 1, set.length)
    return { set, factors, top, beside, sum }
  }

  /** Shared faults that stand beside a set because they are worth little. */
  private besideOf(weak: readonly SharedClass[], worth: Float64Array, used: ReadonlySet<number>): Beside {
    const parts = new Map<number, number>()
    const entries: Entry[] = [{ cells: [], classes: [], log: 0, odds: 0 }]
    for (const c of weak) {
      // A fault that shows in several islands stands beside the first of them.
      if (!this.inside.has(c.touched[0]!)) continue
      const log = worth[c.index]!
      const w = Math.exp(log)
      for (const [part, o] of c.parts) if (!used.has(part)) parts.set(part, (parts.get(part) ?? 0) + o * w)
      const odds = Math.log(c.odds)
      entries.push({ cells: [c.members[0]!], classes: [c], log: odds + log, odds })
    }
    for (const g of this.groups)
      for (const [part, o] of this.ground.scene.besideShared[g]!)
        if (!used.has(part)) parts.set(part, (parts.get(part) ?? 0) + o)
    return { parts, entries, sum: [...parts.values()].reduce(orOneMore, constant(1)) }
  }
}

const NOTHING_BESIDE: Beside = { parts: new Map(), entries: [], sum: constant(1) }

const partsOf = (set: SharedSet): ReadonlySet<number> => new Set(set.flatMap((c) => [...c.parts.keys()]))

/** Whether all that a class stands for are parts that are at fault already. */
const isTaken = ({ parts }: SharedClass, used: ReadonlySet<number>): boolean =>
  [...parts.keys()].every((p) => used.has(p))
