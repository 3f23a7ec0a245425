import { commandsBetween, create, freeId, join, portEnd, type Work } from '../plan'
import { entries, type Command, type DeviceId, type PathAt, type PlaceId, type Site, type System } from '../site'
import { freeTag, legEndAt } from './join'
import { layoutOf, type PathLayout } from './layout'

/** The rules of a system for surge arrestors, as a tree is judged by them. */
export interface SurgeRules {
  readonly near_m: number
  readonly branch_m: number
  readonly spacing_m: number
}
/**
 * A tree of spots from the controller (spot 0): the spot before each and metres to it. Any other spot may be a site.
 */
export interface SurgeTree {
  readonly parent: readonly number[]
  readonly length_m: readonly number[]
}

/** What is wrong with a set of sites. Spots are those of the tree. */
export type SurgeBreach =
  | { readonly kind: 'none_near'; readonly exit: number; readonly near_m: number }
  | { readonly kind: 'end_bare'; readonly spot: number; readonly branch_m: number }
  | { readonly kind: 'apart'; readonly a: number; readonly b: number; readonly apart_m: number }

/** The least number of sites that keep the rules, and where. */
export interface SurgePlan {
  readonly sites: readonly number[]
  /** Rules that no set of boxes can keep: a box has to be put there. */
  readonly impossible: readonly SurgeBreach[]
}

interface Children {
  readonly of: readonly (readonly number[])[]
  readonly outward: readonly number[]
  readonly distance_m: readonly number[]
  /** Spots at which a branch ends that is long enough to want an arrestor there, with the branch’s length. */
  readonly ends: ReadonlyMap<number, number>
}

/** The tree from its root outward; a branch is the stretch from the last T, or the controller, to an end. */
function childrenOf({ parent, length_m }: SurgeTree, { branch_m }: SurgeRules): Children {
  const of: number[][] = parent.map(() => [])
  parent.forEach((p, spot) => {
    if (spot > 0) of[p]!.push(spot)
  })
  const outward: number[] = [0]
  for (let i = 0; i < outward.length; i++) outward.push(...of[outward[i]!]!)
  const distance_m = parent.map(() => 0)
  const since_m = parent.map(() => 0)
  for (const spot of outward.slice(1)) {
    const p = parent[spot]!
    distance_m[spot] = distance_m[p]! + length_m[spot]!
    since_m[spot] = (p === 0 || of[p]!.length > 1 ? 0 : since_m[p]!) + length_m[spot]!
  }
  const ends = new Map(
    outward
      .slice(1)
      .flatMap((s) => (of[s]!.length === 0 && since_m[s]! >= branch_m ? [[s, since_m[s]!] as const] : [])),
  )
  return { of, outward, distance_m, ends }
}

/** Which rules a set of sites breaks: the plain reading of the rules, pair by pair along the path. */
export function surgeBreaches(tree: SurgeTree, rules: SurgeRules, sites: ReadonlySet<number>): SurgeBreach[] {
  const { of, outward, distance_m, ends } = childrenOf(tree, rules)
  const breaches: SurgeBreach[] = []
  for (const exit of of[0]!) {
    const below = [exit]
    let isNear = false
    for (let i = 0; i < below.length; i++) {
      const spot = below[i]!
      if (distance_m[spot]! > rules.near_m) continue
      isNear ||= sites.has(spot)
      below.push(...of[spot]!)
    }
    if (!isNear) breaches.push({ kind: 'none_near', exit, near_m: rules.near_m })
  }
  for (const [spot, branch_m] of ends) if (!sites.has(spot)) breaches.push({ kind: 'end_bare', spot, branch_m })
  // From each site, and the controller, outward and inward to the next ones.
  const around = (spot: number) => [...of[spot]!, ...(spot === 0 ? [] : [tree.parent[spot]!])]
  const isStop = (spot: number) => spot === 0 || sites.has(spot)
  for (const from of outward.filter(isStop)) {
    const walk: [spot: number, by: number, far_m: number][] = [[from, -1, 0]]
    for (const [spot, by, far_m] of walk)
      for (const next of around(spot)) {
        if (next === by) continue
        const there_m = far_m + (tree.parent[next] === spot && next !== 0 ? tree.length_m[next]! : tree.length_m[spot]!)
        if (!isStop(next)) walk.push([next, spot, there_m])
        else if (from < next && there_m > rules.spacing_m + ROUNDING_m)
          breaches.push({ kind: 'apart', a: from, b: next, apart_m: there_m })
      }
  }
  return breaches
}
const ROUNDING_m = 1e-9

/**
 * What a subtree can come to: so many sites in it, the farthest of them that can be seen from its top with none between
 * (−∞ where there is none), and whether one of them is near enough to the controller.
 */
interface Option {
  readonly count: number
  readonly seen_m: number
  readonly isNear: boolean
  /** The site at the top, if it is one, and the options of the children that this one is made of. */
  readonly site: number | null
  readonly of: readonly Option[]
}
const NOTHING: Option = { count: 0, seen_m: -Infinity, isNear: false, site: null, of: [] }

/** The options that no other beats in all three. */
function best(options: readonly Option[]): Option[] {
  const kept: Option[] = []
  const inOrder = [...options].sort(
    (a, b) => a.count - b.count || a.seen_m - b.seen_m || Number(b.isNear) - Number(a.isNear),
  )
  for (const o of inOrder)
    if (!kept.some((k) => k.count <= o.count && k.seen_m <= o.seen_m && (k.isNear || !o.isNear))) kept.push(o)
  return kept
}

/**
 * The fewest sites that keep the rules, exactly: from the ends inward, each subtree keeps every option that no other
 * beats. A farther site in sight is never better, so few are left, and a path of thousands takes no time.
 * @param kept sites that are there already and stay
 */
export function fewestSites(given: SurgeTree, rules: SurgeRules, kept: ReadonlySet<number> = new Set()): SurgePlan {
  const impossible: SurgeBreach[] = given.length_m.flatMap((apart_m, b) =>
    b > 0 && apart_m > rules.spacing_m ? [{ kind: 'apart' as const, a: given.parent[b]!, b, apart_m }] : [],
  )
  // A length that no two sites can keep wants a box in it; the rest is planned as if it were just as long as allowed.
  const tree = { ...given, length_m: given.length_m.map((l) => Math.min(l, rules.spacing_m)) }
  const { of, outward, ends } = childrenOf(tree, rules)
  const { distance_m } = childrenOf(given, rules)
  const limit_m = rules.spacing_m + ROUNDING_m
  const made: Option[][] = []
  /** Every way of putting the children’s options together; whether they see each other past the spot they hang on. */
  const together = (spot: number, past: boolean): Option[] =>
    of[spot]!.reduce<Option[]>(
      (options, child) =>
        best(
          options.flatMap((o) =>
            made[child]!.flatMap((c): Option[] => {
              const seen_m = c.seen_m + tree.length_m[child]!
              if (seen_m > limit_m || (past && o.seen_m + seen_m > limit_m)) return []
              return [
                {
                  count: o.count + c.count,
                  seen_m: Math.max(o.seen_m, seen_m),
                  isNear: o.isNear || c.isNear,
                  site: null,
                  of: [...o.of, c],
                },
              ]
            }),
          ),
        ),
      [NOTHING],
    )
  for (const spot of [...outward].reverse()) {
    if (spot === 0) continue
    const isNear = distance_m[spot]! <= rules.near_m
    const seated = together(spot, false).map((o): Option => ({
      count: o.count + 1,
      seen_m: 0,
      isNear: o.isNear || isNear,
      site: spot,
      of: o.of,
    }))
    made[spot] = best(kept.has(spot) || ends.has(spot) ? seated : [...together(spot, true), ...seated])
  }
  const chosen = of[0]!.map((exit) => {
    const good = made[exit]!.filter((o) => o.seen_m + tree.length_m[exit]! <= limit_m)
    const near = good.filter((o) => o.isNear)
    if (near.length === 0) impossible.push({ kind: 'none_near', exit, near_m: rules.near_m })
    return (near.length > 0 ? near : good).reduce((b, o) => (o.count < b.count ? o : b))
  })
  const sites: number[] = []
  for (const o of chosen) {
    if (o.site !== null) sites.push(o.site)
    chosen.push(...o.of)
  }
  return { sites: sites.sort((a, b) => a - b), impossible }
}

/** The rules of a system on this property: closer together where lightning is frequent. */
export const surgeRules = ({ surge }: System, lightning: Site['settings']['lightning']): SurgeRules => ({
  near_m: surge.near_m,
  branch_m: surge.branch_m,
  spacing_m: lightning === 'frequent' ? surge.lightning_m : surge.spacing_m,
})

/** A path’s layout as the tree that arrestors are planned on. */
export function surgeTree({ spots, legs, parent }: PathLayout): SurgeTree {
  const before = parent.map((leg, spot) => (leg === null ? 0 : legs[leg]!.a === spot ? legs[leg]!.b : legs[leg]!.a))
  return { parent: before, length_m: spots.map((_, i) => (parent[i] === null ? 0 : legs[parent[i]!]!.length_m)) }
}

/** A path’s arrestors by place: those on record, what is wrong with them, and the fewest that would keep the rules. */
export interface Arrestors {
  readonly now: readonly PlaceId[]
  readonly breaches: readonly SurgeBreach[]
  /** With those that are there, and from nothing. */
  readonly more: readonly PlaceId[]
  readonly fewest: readonly PlaceId[]
  readonly impossible: readonly SurgeBreach[]
  readonly rules: SurgeRules
}

/** Where the arrestors of a path are and should be. */
export function arrestorsOf(site: Site, path: PathAt & { readonly system: System }): Arrestors {
  const layout = layoutOf(site, path)
  const [tree, rules] = [surgeTree(layout), surgeRules(path.system, site.settings.lightning)]
  const places = new Set(entries(site.devices).flatMap(([, d]) => (d.kind === 'arrestor' ? [d.place] : [])))
  // The box is what counts, so of several joints in one the nearest to the controller stands for it.
  const atPlace = new Map<PlaceId, number>()
  for (const spot of layout.outward.slice(1))
    if (!atPlace.has(layout.spots[spot]!.place)) atPlace.set(layout.spots[spot]!.place, spot)
  const now = new Set([...places].flatMap((place) => atPlace.get(place) ?? []))
  const [more, fewest] = [fewestSites(tree, rules, now), fewestSites(tree, rules)]
  const placeOf = (spot: number) => layout.spots[spot]!.place
  return {
    now: [...now].map(placeOf),
    breaches: surgeBreaches(tree, rules, now),
    more: more.sites.filter((s) => !now.has(s)).map(placeOf),
    fewest: fewest.sites.map(placeOf),
    impossible: fewest.impossible,
    rules,
  }
}

/** The changes that put an arrestor with its rod into these boxes, joined to both legs. */
export function arrestorCommands(site: Site, path: PathAt, places: readonly PlaceId[]): Command[] {
  const work: Work = { site }
  for (const place of places) {
    const arrestor = freeId(work.site, 'devices', `E-${place}`) as DeviceId
    const tagOf = (letter: string) => freeTag(work.site.devices, letter)
    create(work, 'devices', arrestor, { kind: 'arrestor', place, tag: tagOf('E') })
    create(work, 'devices', freeId(work.site, 'devices', `R-${place}`), { kind: 'rod', place, tag: tagOf('R') })
    for (const side of [0, 1] as const) {
      const end = legEndAt(work.site, path.controller, place, side)
      if (end) join(work, place, [end, portEnd(arrestor, `path_${side + 1}`)])
    }
  }
  return commandsBetween(site, work.site)
}
