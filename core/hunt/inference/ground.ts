import { DisjointSets } from '../../site'
import type { FaultHypothesis } from '../catalogue'
import { worthOf, type Entry, type Factor, type Group } from './group'
import type { Fit } from './likelihood'
import type { Scene, SharedClass } from './scene'
import type { GroupStock } from './stock'
import { fitUnder, SHARPER_NATS } from './units'

/**
 * A shared fault is looked at closely where it may hold so much of what the likeliest set holds; at all where so much.
 */
const [CLOSELY, AT_ALL] = [1e-2, 1e-3]
/** A shared fault that explains no more than this is there or not, whatever else is, nats. */
const NEUTRAL_NATS = 0.5
/** One that is worth so much beside a set is one of a set of its own; others stand beside it as they are. */
const STRONG = 0.02
/** What a reading that fits as well as chance lets it lies below the best fit, nats. */
const BY_CHANCE_NATS = 0.5
/** What may come as near as this to the likeliest set with two faults of one thread is worked out with them, nats. */
export const DEEPLY_NATS = 5
/** What is worth no more than this is not looked at any further. */
const NEGLIGIBLE = 1e-6
/** A shared fault that fits so badly stands beside no set, nats. */
export const RULED_OUT_NATS = -20
const RULED_OUT: Look = { log: -100, beside: -100 }
/** About the odds of the one fault of a thread that would explain what a shared one leaves. */
const ONE_LOCAL = 0.003

/** A group with the numbers of those it was made from. */
export interface Placed {
  readonly of: readonly number[]
  readonly group: Group
}
/** Shared faults that are there together. */
export type SharedSet = readonly SharedClass[]

/** A set of shared faults, and what one more is worth beside it, place by place: those that show alike there once. */
export class FirstLooks {
  private readonly fits = new Map<Placed, Map<number, Fit>>()
  private readonly all = new Map<SharedClass, Look>()
  constructor(readonly set: SharedSet) {}

  /** At all the places that it touches. */
  everywhere(more: SharedClass, make: () => Look): Look {
    let look = this.all.get(more)
    if (!look) this.all.set(more, (look = make()))
    return look
  }
  at(place: Placed, more: SharedClass, make: () => Fit): Fit {
    const shows = place.of.length === 1 ? more.effectNumbers[place.of[0]!]! : 0
    const name = shows === 0 ? -1 - more.index : shows
    let fits = this.fits.get(place)
    if (!fits) this.fits.set(place, (fits = new Map()))
    let fit = fits.get(name)
    if (!fit) fits.set(name, (fit = make()))
    return fit
  }
}

/** What the groups hold beside sets of shared faults, each worked out once. */
export class Ground {
  private readonly placed: readonly Placed[]
  private readonly merged = new Map<string, Placed>()
  /** By shared fault: what it is worth at a first look where no other is, its odds left out, nats. */
  readonly alone: Float64Array
  /** By group: how much better it could fit where no shared fault is, nats. */
  private readonly slacks: Float64Array
  /** By group: the shared faults that touch it. */
  private readonly touchingOne: readonly SharedClass[][]
  /**
   * What each shared fault is worth where no other is: asked for by every island, until a group is looked at deeper.
   */
  private besideNone = new FirstLooks([])

  /** `oneMore`: what one more fault is worth about, beside its odds. */
  constructor(
    readonly scene: Scene,
    readonly oneMore: number,
    private readonly stock: GroupStock,
  ) {
    this.placed = scene.groups.map((group, k) => ({ of: [k], group }))
    this.touchingOne = scene.groups.map(() => [])
    for (const c of scene.shared) for (const g of c.touched) this.touchingOne[g]!.push(c)
    this.slacks = Float64Array.from(this.placed, (p) => this.slackOf(this.factorOf(p, [])))
    this.alone = Float64Array.from(scene.shared, (c) => this.firstLook(this.besideNone, c, this.slacks).log)
  }

  /** Shared faults that touch any of some groups. */
  touching(groups: readonly number[]): readonly SharedClass[] {
    if (groups.length === 1) return this.touchingOne[groups[0]!]!
    const found = new Set(groups.flatMap((g) => this.touchingOne[g]!))
    return [...found].sort((a, b) => a.index - b.index)
  }

  /** Some groups as a shared set leaves them: those that a link joins are one. */
  groupsUnder(among: readonly number[], set: SharedSet): readonly Placed[] {
    const links = set.map((c) => c.links).filter((groups) => groups.length > 0)
    if (links.length === 0) return among.map((g) => this.placed[g]!)
    const joined = new DisjointSets<number>()
    for (const groups of links) for (const g of groups) joined.join(groups[0]!, g)
    const inLink = new Set(links.flat())
    const together = new Map<number, number[]>()
    for (const g of among) together.set(joined.of(g), [...(together.get(joined.of(g)) ?? []), g])
    return [...together.values()].map((of) => (inLink.has(of[0]!) ? this.together(of) : this.placed[of[0]!]!))
  }
  private together(of: readonly number[]): Placed {
    const key = of.join()
    const known = this.merged.get(key)
    if (known) return known
    const parts = of.map((k) => this.scene.groups[k]!)
    const made: Placed = { of, group: this.stock.linking(this.scene.model, parts) }
    this.merged.set(key, made)
    return made
  }
  /** Some groups with those that links join to them. */
  closed(among: readonly number[], set: SharedSet): readonly number[] {
    if (set.every(({ links }) => links.length === 0)) return among
    const found = new Set(among)
    for (let grown = true; grown;) {
      grown = false
      for (const { links } of set)
        if (links.some((g) => found.has(g)))
          for (const g of links) {
            if (found.has(g)) continue
            found.add(g)
            grown = true
          }
    }
    return [...found].sort((a, b) => a - b)
  }

  /** `deep`: with more than one fault of a group's own beside the shared ones. */
  factorOf(place: Placed, set: SharedSet, deep = false): Factor {
    const { group, of } = place
    const felt = feltIn(place, set)
    return group.factor(
      nameOf(place, felt),
      this.cellsOf(felt),
      of.length === 1 && (deep || (felt.length === 0 && group.isDeep)),
    )
  }
  /** The log of a factor, each fault being worth `oneMore` beside its odds. */
  valueOf({ top, sum }: Factor): number {
    let [value, power] = [0, 1]
    for (const s of sum) {
      value += s * power
      power *= this.oneMore
    }
    return top + Math.log(value)
  }
  /**
   * Groups that could come near what they hold in the likeliest set, `best` by group, with more than one fault of their
   * own and no shared one, are worked out so; whether any is now that was not before.
   */
  deepen(among: readonly number[], best: Float64Array): boolean {
    let some = false
    for (const g of among) {
      const p = this.placed[g]!
      const factor = this.factorOf(p, [])
      const floor = best[g]! - DEEPLY_NATS
      if (this.valueOf(factor) + this.roomIn(factor) < floor || !p.group.deepen(floor)) continue
      this.besideNone = new FirstLooks([])
      some = true
      this.slacks[g] = this.slackOf(this.factorOf(p, []))
    }
    return some
  }
  /** How much more a group could hold with one more fault of its own, nats. */
  roomIn(factor: Factor): number {
    return Math.max(0, this.slackOf(factor) + Math.log(ONE_LOCAL * this.oneMore))
  }
  /** How much better than now a group could fit, beyond what chance leaves in any reading, nats. */
  private slackOf(factor: Factor): number {
    return Math.max(0, factor.ceiling - this.valueOf(factor) - BY_CHANCE_NATS)
  }
  /** How much better some groups could fit where no shared fault is, nats. */
  slackIn(among: readonly number[]): number {
    return among.reduce((s, g) => s + this.slacks[g]!, 0)
  }
  /** By group: how much better it could fit, some beside a set; of groups that are joined all of it at the first. */
  slacksUnder(among: readonly number[], set: SharedSet): Float64Array {
    const slacks = this.slacks.slice()
    for (const p of this.groupsUnder(among, set))
      p.of.forEach((g, k) => (slacks[g] = k === 0 ? this.slackOf(this.factorOf(p, set)) : 0))
    return slacks
  }

  /** What shared faults are worth beside a set, as far as it was worked out before. */
  looksBeside(set: SharedSet): FirstLooks {
    return set.length === 0 ? this.besideNone : new FirstLooks(set)
  }

  /**
   * What one more shared fault is worth beside a set, its odds left out: how much better all readings then fit, nats,
   * with what the threads hold most likely. `closely`: how much it might hold with all that they may hold, where that
   * may count; null where it does not. `before`: what it was worth beside fewer: what explained nothing then explains
   * no more now with a thread's own fault beside it. `below`: how far what the groups that it touches hold beside the
   * set lies below the likeliest, nats. `slacks`: by group how much better it could fit beside the set.
   */
  worth(looks: FirstLooks, more: SharedClass, before: number, below: number, slacks: Float64Array): Worth {
    const { log, beside } = this.firstLook(looks, more, slacks)
    const may = more.odds * this.oneMore
    const hope = before > NEUTRAL_NATS ? Math.max(log, beside) : log
    const isClose = (nats: number) => nats > NEUTRAL_NATS && may * Math.exp(nats - below) > CLOSELY
    const likely = hope > log && isClose(hope) ? Math.max(log, beside - this.leftByExchange(looks.set, more)) : hope
    return { log, closely: isClose(likely) ? may * Math.exp(likely - below) : null }
  }
  /**
   * Leads under each other's screws: what is wrong with one lead shows at one screw, so that what a reading of the
   * other misses stays missed. The less of the two, nats; nothing of other faults.
   */
  private leftByExchange(set: SharedSet, more: SharedClass): number {
    const { model, groups } = this.scene
    const isPair = model.catalogue.faults[more.members[0]!.fault]!.where.kind === 'pair'
    if (!isPair || more.links.length < 2) return 0
    const cells = this.cellsOf([...set, more])
    const missed = more.links.map((g) =>
      groups[g]!.readings.reduce((most, reading) => {
        const { log, best } = fitUnder(model, [reading], cells)
        return Math.max(most, best - log)
      }, 0),
    )
    return Math.min(...missed)
  }
  /** Whether a shared fault that is worth so much, nats, is one of a set of its own. */
  isStrong({ odds }: SharedClass, worth: number): boolean {
    return worth > NEUTRAL_NATS && odds * Math.exp(worth) * this.oneMore > STRONG
  }
  /** Whether a shared fault could be worth anything, if all readings that it touches fitted as well as they can. */
  couldCount({ odds, touched }: SharedClass, slacks: Float64Array): boolean {
    const most = touched.reduce((s, g) => s + slacks[g]!, SHARPER_NATS)
    return odds * this.oneMore * Math.exp(most) > AT_ALL
  }
  /**
   * The same with what the threads hold most likely; no further than to where it cannot be worth anything any more,
   * however well the groups that are left could fit.
   */
  private firstLook(looks: FirstLooks, more: SharedClass, slacks: Float64Array): Look {
    return looks.everywhere(more, () => this.lookOver(looks, more, slacks))
  }
  private lookOver(looks: FirstLooks, more: SharedClass, slacks: Float64Array): Look {
    const { set } = looks
    const among = this.closed(more.touched, set)
    const before = this.groupsUnder(among, set)
    // Groups that the new one leads to each other are looked at together; the others each by itself.
    const leads = more.links.length > 0
    const isLed = (p: Placed) => leads && p.of.some((g) => more.links.includes(g))
    const [led, others] = [before.filter(isLed), before.filter((p) => !isLed(p))]
    // Where nothing else could make up for it, what rules it out is not followed any further.
    const enough = others.length === 0 ? RULED_OUT_NATS : -Infinity
    const least = Math.log(NEGLIGIBLE / (more.odds * this.oneMore))
    let hope = others.reduce((s, p) => s + slackAt(p, slacks), SHARPER_NATS)
    let [log, beside] = [0, 0]
    const add = (fit: Fit, of: readonly Placed[]) => {
      log += fit.log
      beside += this.besideOne(fit, more, of)
    }
    if (leads) add(this.firstLookLinked(led, set, more, enough), led)
    for (const place of others) {
      hope -= slackAt(place, slacks)
      add(
        looks.at(place, more, () => this.firstLookAt(place, set, more)),
        [place],
      )
      if (log + hope < least && beside + hope < least) return RULED_OUT
    }
    return { log, beside }
  }
  /**
   * What a shared fault is worth at some places, nats, with one more fault of their own that it does not
   * explain, if that explained what is left. What cuts a thread off from a leak shows from wire to wire too:
   * beside one nothing lets it fit better.
   */
  private besideOne({ log, best }: Fit, more: SharedClass, places: readonly Placed[]): number {
    if (more.members[0]!.leak) return log
    const readings = places.reduce((s, p) => s + p.group.readings.length, 0)
    return Math.max(log, best - readings * BY_CHANCE_NATS + Math.log(ONE_LOCAL * this.oneMore))
  }
  private firstLookLinked(places: readonly Placed[], set: SharedSet, more: SharedClass, least: number): Fit {
    const groups = places.map((p) => p.group)
    const cells = this.cellsOf([...set, more])
    return this.stock.worth(groups, cells, (units) => {
      const factors = places.map((p) => this.factorOf(p, set))
      const held = factors.reduce((s, f) => s + this.valueOf(f), 0)
      return worthOf(this.scene.model, units, together(factors), cells, { held, oneMore: this.oneMore, least })
    })
  }
  private firstLookAt(place: Placed, set: SharedSet, more: SharedClass): Fit {
    const felt = feltIn(place, [...set, more])
    const name = nameOf(place, felt)
    let known = place.group.quick.get(name)
    if (known === undefined) {
      const { model, units } = place.group
      const now = this.factorOf(place, set)
      const told = { held: this.valueOf(now), oneMore: this.oneMore }
      known = worthOf(model, units, likeliest(now), this.cellsOf(felt), told)
      place.group.quick.set(name, known)
    }
    return known
  }
  /** The same with all that the threads may hold. */
  closeLook(set: SharedSet, more: SharedClass): number {
    const now = [...set, more]
    const among = this.closed(more.touched, now)
    const sum = (s: SharedSet) =>
      this.groupsUnder(among, s).reduce((log, p) => log + this.valueOf(this.factorOf(p, s)), 0)
    return sum(now) - sum(set)
  }

  /** A cell for each of some shared faults; of a class that comes twice, cells at two parts. */
  cellsOf(set: SharedSet): FaultHypothesis[] {
    const { partOf } = this.scene.model
    const taken = new Set<number>()
    return set.map(({ members }) => {
      const cell = members.find((m) => !taken.has(partOf[m.fault]!)) ?? members[0]!
      taken.add(partOf[cell.fault]!)
      return cell
    })
  }
}

/** What a shared fault is worth at a first look, nats, and with a fault of its own beside it at each place. */
interface Look {
  readonly log: number
  readonly beside: number
}
/** What a shared fault is worth at a first look, nats, and how much it might hold at a closer one. */
interface Worth {
  readonly log: number
  readonly closely: number | null
}

/**
 * Of some shared faults those that show in a group, or lead other groups' currents to it; beside a leak that does,
 * whatever may lie on the way to it.
 */
function feltIn({ of }: Placed, set: SharedSet): SharedSet {
  const felt = set.filter((c) => of.some((g) => c.effects[g] !== '' || (of.length > 1 && c.links.includes(g))))
  return felt.some((c) => c.members[0]!.leak) ? set : felt
}
/** How much better a place could fit than now, nats. */
const slackAt = ({ of }: Placed, slacks: Float64Array): number => of.reduce((s, g) => s + slacks[g]!, 0)
/** A name for how they show there: of groups that are joined, by the faults themselves. */
const nameOf = ({ of }: Placed, felt: SharedSet): string =>
  felt.map((c) => (of.length > 1 ? c.members[0]!.index : c.effects[of[0]!] || c.members[0]!.index)).join(' ')

/** What holds most in a group, and that nothing of its own is wrong. */
const likeliest = ({ leading }: Factor): readonly Entry[] => leading.slice(0, 2)

/** The same of some groups together: nothing of their own in any, and what holds most in each. */
function together(factors: readonly Factor[]): Entry[] {
  const [sound, held] = [0, 1].map((k) =>
    factors.reduce<Entry>(
      (all, f) => {
        const own = likeliest(f)[k] ?? likeliest(f)[0]!
        return {
          cells: [...all.cells, ...own.cells],
          classes: [...all.classes, ...own.classes],
          log: all.log + own.log,
          odds: all.odds + own.odds,
        }
      },
      { cells: [], classes: [], log: 0, odds: 0 },
    ),
  ) as [Entry, Entry]
  return held.cells.length > 0 ? [sound, held] : [sound]
}
