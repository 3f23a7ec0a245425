import { DisjointSets } from '../../site'
import { distinctOdds } from './distinct'
import type { Entry, Factor } from './group'
import { DEEPLY_NATS, RULED_OUT_NATS, type Ground, type SharedSet } from './ground'
import { addTo, constant, dot, orOneMore, times, zero, type Polynomial } from './polynomial'
import type { SharedClass } from './scene'

/** Sets of shared faults are looked at as far as this below the best, nats. */
const LOOKED_AT_NATS = 10
const [MOST_SHARED, MOST_SETS] = [6, 400]
/** Sets that hold so much of what was found, all together, are not looked at any more. */
const NEXT_TO_NOTHING = 2e-3
/**
 * What is worth so much beside a set may stand instead of what the set’s threads hold, where it shows in few groups;
 * so many at most.
 */
const [ALTERNATIVE, OF_FEW, MOST_ALTERNATIVES] = [5e-4, 3, 24]
/** What lies so far below that nothing stands beside a set is not told of, nats. */
export const TOLD_NATS = 9
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
  for (const c of scene.shared) {
    const worth = ground.alone[c.index]!
    if (ground.isStrong(c, worth) || isAlternative(c, weightOf(ground, c, worth))) couple(c.touched)
  }
  const explored = new Map<string, Island>()
  for (;;) {
    const members = new Map<number, number[]>()
    scene.groups.forEach((_, g) => members.set(joined.of(g), [...(members.get(joined.of(g)) ?? []), g]))
    // What fits worst first: once more of its own faults explain it, no shared one is looked at for its sake.
    const left = [...members.values()].filter((groups) => !explored.has(groups.join()))
    const open = left.sort((a, b) => ground.slackIn(b) - ground.slackIn(a))[0]
    if (!open) return [...members.values()].map((groups) => explored.get(groups.join())!)
    const found = new Search(ground, open, weights).run()
    if (found.kind === 'reaches') couple([open[0]!, ...found.groups])
    else explored.set(open.join(), { groups: open, cases: found.cases })
  }
}

/** By shared fault whether it may be added still: those that might before, without the first of some. */
class Left {
  constructor(
    private readonly before: Uint8Array,
    private readonly gone: readonly SharedClass[],
    private readonly count: number,
  ) {}
  /** Made when it is looked at: most branches never are. */
  marks(): Uint8Array {
    const marks = this.before.slice()
    for (let k = 0; k < this.count; k++) marks[this.gone[k]!.index] = 0
    return marks
  }
}

/**
 * A set that is still to be looked at: what may be added to it, and what it holds about; or may come to hold, once what
 * the best set has elsewhere is there too.
 */
interface Branch {
  readonly set: SharedSet
  readonly left: Left
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
  private visited = 0
  /** The most that any set holds about; and any that the tree has come to: what leads on to the best lies below it. */
  private best = -Infinity
  private reached = -Infinity
  /** The same by group: of groups that are joined, and of a shared fault's odds, each an even share. */
  private bestByGroup = new Float64Array(0)
  private bestSet: SharedSet = []
  private readonly inside: ReadonlySet<number>
  private readonly own: readonly SharedClass[]

  constructor(
    private readonly ground: Ground,
    private readonly groups: readonly number[],
    private readonly weights: Polynomial,
  ) {
    this.inside = new Set(groups)
    this.own = ground.touching(groups)
  }

  /** The likeliest sets first: their branches are held against the best that was come to. */
  run(): Found {
    const every = new Uint8Array(this.ground.scene.shared.length)
    for (const c of this.own) every[c.index] = 1
    const root: Branch = { set: [], left: new Left(every, [], 0), before: null, log: Infinity }
    do {
      this.best = -Infinity
      this.dive(root)
    } while (this.ground.deepen(this.groups, this.bestByGroup))
    const open = [root]
    while (open.length > 0 && this.visited < MOST_SETS) {
      const at = open.reduce((m, b, k) => (b.log > open[m]!.log ? k : m), 0)
      const [next] = open.splice(at, 1) as [Branch]
      if (next.log < this.reached - LOOKED_AT_NATS || this.holdLittle([next, ...open])) break
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
      const open = this.openIn(at)
      const now = this.worths(at, open, null)
      const { value } = this.noted(this.caseOf(at.set, NOTHING_BESIDE))
      const strong = this.strongOf(at, open, now)
      if (strong.length === 0 || value < this.best - LOOKED_AT_NATS) return
      at = { set: [...at.set, strong[0]!], left: new Left(at.left.marks(), strong, 1), before: now, log: value }
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
    if (value > this.best) [this.best, this.bestByGroup, this.bestSet] = [value, byGroup, c.set]
    return { value, byGroup }
  }
  /** Shared faults that make a set of their own with this one, the likeliest first. */
  private strongOf({ set }: Branch, open: readonly SharedClass[], now: Float64Array): SharedClass[] {
    if (set.length >= MOST_SHARED) return []
    return open
      .filter((c) => this.ground.isStrong(c, now[c.index]!))
      .sort((a, b) => this.weightOf(b, now) - this.weightOf(a, now))
  }
  /**
   * Of shared faults that are weak beside a set those that might stand instead of what the threads hold: each is summed
   * up as a set of its own, though nothing is added to it. `about`: the log of what the set holds about.
   */
  private alternativesIn(weak: readonly SharedClass[], now: Float64Array, about: number): SharedClass[] {
    const share = Math.exp(about - this.best)
    return weak
      .filter((c) => isAlternative(c, share * this.weightOf(c, now)) && c.touched.every((g) => this.inside.has(g)))
      .sort((a, b) => this.weightOf(b, now) - this.weightOf(a, now))
      .slice(0, MOST_ALTERNATIVES)
  }
  /** Shared faults that may be added to a set: those that are left, but for what is at fault already. */
  private openIn({ set, left }: Branch): SharedClass[] {
    const [marks, parts] = [left.marks(), partsOf(set)]
    return this.own.filter((c) => marks[c.index] === 1 && !isTaken(c, parts))
  }
  private weightOf(c: SharedClass, now: Float64Array): number {
    return weightOf(this.ground, c, now[c.index]!)
  }

  /** Whether branches hold next to nothing of what was found, as far as their first looks tell. */
  private holdLittle(branches: readonly Branch[]): boolean {
    const held = this.found.reduce((s, c) => s + Math.exp(this.valueOf(c) - this.reached), 0)
    return branches.reduce((s, b) => s + Math.exp(b.log - this.reached), 0) < NEXT_TO_NOTHING * held
  }

  private visit(at: Branch): { readonly kind: 'branches'; readonly list: readonly Branch[] } | Reaches {
    const { set } = at
    const open = this.openIn(at)
    const { byGroup, value: about } = this.noted(this.caseOf(set, NOTHING_BESIDE))
    this.visited++
    const now = this.worths(at, open, byGroup)
    const strong = this.strongOf(at, open, now)
    const outside = strong.flatMap((c) => c.touched.filter((g) => !this.inside.has(g)))
    if (outside.length > 0) return { kind: 'reaches', groups: outside }
    const strongly = new Set(strong)
    const others = open.filter((c) => !strongly.has(c))
    const alternatives = this.alternativesIn(others, now, about)
    for (const c of alternatives) this.found.push(this.caseOf([...set, c], NOTHING_BESIDE))
    const apart = new Set(alternatives)
    const weak = others.filter((c) => !apart.has(c))
    const here = this.caseOf(set, this.besideOf(weak, now, partsOf(set)))
    this.found.push(here)
    const { value } = this.noted(here)
    this.reached = Math.max(this.reached, value)
    const marks = at.left.marks()
    const gone = new Set<SharedClass>()
    return {
      kind: 'branches',
      list: strong.flatMap((c, k): Branch[] => {
        gone.add(c)
        // What a branch holds: itself once more, each of its kind being worth about so much.
        const held = value + Math.log(this.weightOf(c, now))
        const isOpen = (m: SharedClass) => set.includes(m) || (marks[m.index] === 1 && !gone.has(m))
        const log = held + this.toCome([...set, c], byGroup, isOpen)
        return log < this.reached - LOOKED_AT_NATS
          ? []
          : [{ set: [...set, c], left: new Left(marks, strong, k + 1), before: now, log }]
      }),
    }
  }
  /**
   * How much more a set may come to hold where its last fault does not show, as the best set does there by what may
   * still be added, nats. Of two faults that explain one reading each, the second is worth as much beside every place
   * where the first may be. `byGroup`: what the set without its last one holds.
   */
  private toCome(set: SharedSet, byGroup: Float64Array, isOpen: (c: SharedClass) => boolean): number {
    const last = set.at(-1)!
    const apart = new Set(this.ground.closed(last.touched, set))
    for (const c of this.bestSet) if (!isOpen(c)) for (const g of c.touched) apart.add(g)
    const more = this.groups.reduce((s, g) => (apart.has(g) ? s : s + this.bestByGroup[g]! - byGroup[g]!), 0)
    return Math.max(0, more)
  }

  /**
   * What each shared fault is worth beside a set: as before its last one, but where that shows in the same readings.
   * `byGroup`: what the set holds by group; no close look is taken where it is null.
   */
  private worths({ set, before }: Branch, open: readonly SharedClass[], byGroup: Float64Array | null): Float64Array {
    const { ground } = this
    const last = set.at(-1)
    const changed = last && new Set(ground.closed(last.touched, set))
    const slacks = ground.slacksUnder(this.groups, set)
    const looks = ground.looksBeside(set)
    const now = (before ?? ground.alone).slice()
    const closely: { readonly c: SharedClass; readonly most: number }[] = []
    for (const c of open) {
      if (changed && !c.touched.some((g) => changed.has(g))) continue
      const was = before ? before[c.index]! : Infinity
      const below = () =>
        byGroup ? ground.closed(c.touched, set).reduce((s, g) => s + this.bestByGroup[g]! - byGroup[g]!, 0) : Infinity
      // One that could explain next to nothing more explains nothing.
      if (!ground.couldCount(c, slacks)) {
        if (before) now[c.index] = Math.min(0, was)
        continue
      }
      const worth = ground.worth(looks, c, was, Math.max(0, below()), slacks)
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
      if (log < RULED_OUT_NATS) continue
      const w = Math.exp(log)
      for (const [part, o] of c.parts) if (!used.has(part)) parts.set(part, (parts.get(part) ?? 0) + o * w)
      const odds = Math.log(c.odds)
      if (odds + log > -TOLD_NATS) entries.push({ cells: [c.members[0]!], classes: [c], log: odds + log, odds })
    }
    for (const g of this.groups)
      for (const [part, o] of this.ground.scene.besideShared[g]!)
        if (!used.has(part)) parts.set(part, (parts.get(part) ?? 0) + o)
    return { parts, entries, sum: [...parts.values()].reduce(orOneMore, constant(1)) }
  }
}

const NOTHING_BESIDE: Beside = {
  parts: new Map(),
  entries: [{ cells: [], classes: [], log: 0, odds: 0 }],
  sum: constant(1),
}

/**
 * What a shared fault holds beside a set, of what the set holds; `worth`: how much better readings fit with it, nats.
 */
const weightOf = (ground: Ground, { odds }: SharedClass, worth: number): number =>
  odds * Math.exp(worth) * ground.oneMore
/** Whether a shared fault that holds so much beside a set might stand instead of what the set’s threads hold. */
const isAlternative = ({ links, touched }: SharedClass, weight: number): boolean =>
  links.length === 0 && touched.length <= OF_FEW && weight > ALTERNATIVE

const partsOf = (set: SharedSet): ReadonlySet<number> => new Set(set.flatMap((c) => [...c.parts.keys()]))

/** Whether all that a class stands for are parts that are at fault already. */
function isTaken({ parts }: SharedClass, used: ReadonlySet<number>): boolean {
  for (const part of parts.keys()) if (!used.has(part)) return false
  return true
}
