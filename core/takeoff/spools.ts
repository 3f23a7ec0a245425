import { entries, getOrThrow, type CableId, type PlaceId, type Site } from '../site'
import { openedAt, pieceLength, wareOf, type Ware } from './lengths'

/** A length to be pulled in one go, from box to box. */
export interface Pull {
  readonly cable: CableId
  readonly from: PlaceId
  readonly to: PlaceId
  readonly length_m: number
}
export interface Spool {
  readonly length_m: number
  readonly pulls: readonly Pull[]
  readonly left_m: number
}
export interface SpoolPlan {
  readonly ware: Ware
  readonly spools: readonly Spool[]
  /** Joints of cores that only the spools' length makes necessary. */
  readonly joints: number
  readonly needed_m: number
  readonly bought_m: number
  /** No plan with as few joints buys less than this. */
  readonly bound_m: number
  /** Pulls longer than the longest spool that no box on the way divides. */
  readonly tooLong: readonly Pull[]
}

const USUAL_SPOOLS_m: Readonly<Record<Site['settings']['market'], readonly number[]>> = {
  metric: [100, 250, 500],
  awg: [76.2, 152.4, 304.8, 762],
}
/** Pulls up to which every way of sharing them out is tried. */
const EXACT_PULLS = 11
/** Ways of dividing the cables that are compared; beyond, the first is taken. */
const MOST_WAYS = 64

export const spoolsOf = ({ settings: { material, market } }: Site): number[] =>
  [...(material.spools_m.length > 0 ? material.spools_m : USUAL_SPOOLS_m[market])].sort((a, b) => a - b)

/**
 * Cuts every pull from stocked lengths: every end at a box, fewest joints, then least bought; for each ware by
 * itself.
 */
export function spoolPlans(site: Site): SpoolPlan[] {
  const lengths = spoolsOf(site)
  const wares = new Map<string, CableId[]>()
  for (const [id, cable] of entries(site.cables)) {
    const { key } = wareOf(cable)
    wares.set(key, [...(wares.get(key) ?? []), id])
  }
  return [...wares.values()].map((cables) => planFor(site, cables, lengths))
}

function planFor(site: Site, cables: readonly CableId[], lengths: readonly number[]): SpoolPlan {
  const longest = lengths.at(-1)!
  const divided = cables.map((id) => divisionsOf(site, id, longest))
  const tooLong = divided.flatMap((d) => d.tooLong)
  const joints = divided.reduce((sum, d) => sum + d.joints, 0)
  let ways: Pull[][] = [[]]
  for (const { ways: own } of divided)
    ways =
      ways.length * own.length > MOST_WAYS
        ? ways.map((w) => [...w, ...own[0]!])
        : ways.flatMap((w) => own.map((o) => [...w, ...o]))
  const plans = ways.map((pulls) => shareOut(pulls, lengths))
  const best = plans.reduce((a, b) => (b.bought_m < a.bought_m - 1e-9 ? b : a))
  const needed_m = ways[0]!.reduce((sum, p) => sum + p.length_m, 0)
  return {
    ware: wareOf(getOrThrow(site.cables, cables[0]!)),
    spools: best.spools,
    joints,
    needed_m,
    bought_m: best.bought_m,
    tooLong,
    bound_m:
      plans.every((p) => p.exact) && ways.length < MOST_WAYS
        ? best.bought_m
        : leastBought(needed_m, lengths, best.bought_m),
  }
}

interface Divided {
  readonly ways: readonly Pull[][]
  readonly joints: number
  readonly tooLong: readonly Pull[]
}

/**
 * Every way of dividing a cable at boxes, with the fewest joints, into pulls that a spool holds. Where all cores are
 * cut anyway, a division costs none.
 */
function divisionsOf(site: Site, id: CableId, longest: number): Divided {
  const cable = getOrThrow(site.cables, id)
  const last = cable.stops.length - 1
  const pull = (from: number, to: number): Pull => {
    const { route_m, expansion_m, slack_m } = pieceLength(site, cable, from, to)
    return {
      cable: id,
      from: cable.stops[from]!.place,
      to: cable.stops[to]!.place,
      length_m: route_m + expansion_m + slack_m,
    }
  }
  const opened = openedAt(cable)
  const cores = Object.values(cable.cores)
  const price = (stop: number) =>
    opened.has(stop) ? cores.filter((c) => !c.cutAt.includes(cable.stops[stop]!.id)).length : cores.length
  // Fewest joints from a stop to the end; a pull that nothing divides counts as one that fits, and is told.
  const least: { joints: number; nexts: number[] }[] = []
  const tooLong: Pull[] = []
  for (let from = last - 1; from >= 0; from--) {
    let found = { joints: Infinity, nexts: [] as number[] }
    for (let to = from + 1; to <= last; to++) {
      const fits = pull(from, to).length_m <= longest
      if (!fits && to > from + 1) break
      const joints = to === last ? 0 : price(to) + least[to]!.joints
      if (joints < found.joints) found = { joints, nexts: [to] }
      else if (joints === found.joints) found.nexts.push(to)
    }
    least[from] = found
  }
  for (let from = 0; from < last; from++)
    if (pull(from, from + 1).length_m > longest) tooLong.push(pull(from, from + 1))
  const walk = (from: number): Pull[][] =>
    from === last
      ? [[]]
      : least[from]!.nexts.flatMap((to) => walk(to).map((rest) => [pull(from, to), ...rest])).slice(0, MOST_WAYS)
  // Where a division costs nothing the fewest pieces are taken: an undivided pull is quicker.
  const ways = walk(0).filter((w) =>
    w.every((p) => p.length_m <= longest || tooLong.some((t) => t.from === p.from && t.to === p.to)),
  )
  const fewest = Math.min(...ways.map((w) => w.length))
  return {
    ways: least[0]!.joints === 0 ? ways.filter((w) => w.length === fewest) : ways,
    joints: least[0]!.joints,
    tooLong,
  }
}

interface Shared {
  readonly spools: Spool[]
  readonly bought_m: number
  readonly exact: boolean
}

/**
 * Shares pulls out over spools for the least bought: all ways for a few pulls, else the longest first into the
 * fullest that takes it.
 */
function shareOut(pulls: readonly Pull[], lengths: readonly number[]): Shared {
  const longest = lengths.at(-1)!
  const fitting = pulls.filter((p) => p.length_m <= longest)
  const groups = fitting.length <= EXACT_PULLS ? allShares(fitting, lengths) : bestFit(fitting, lengths)
  const spools = groups
    .map((group): Spool => {
      const used = group.reduce((sum, p) => sum + p.length_m, 0)
      const length_m = lengths.find((l) => l >= used - 1e-9)!
      return { length_m, pulls: group, left_m: Math.max(0, length_m - used) }
    })
    .sort((a, b) => b.length_m - a.length_m)
  return { spools, bought_m: spools.reduce((sum, s) => sum + s.length_m, 0), exact: fitting.length <= EXACT_PULLS }
}

function allShares(pulls: readonly Pull[], lengths: readonly number[]): Pull[][] {
  const full = (1 << pulls.length) - 1
  const spool = new Float64Array(full + 1).fill(Infinity)
  for (let set = 1; set <= full; set++) {
    let used = 0
    for (let i = 0; i < pulls.length; i++) if (set & (1 << i)) used += pulls[i]!.length_m
    spool[set] = lengths.find((l) => l >= used - 1e-9) ?? Infinity
  }
  const best = new Float64Array(full + 1).fill(Infinity)
  const taken = new Int32Array(full + 1)
  best[0] = 0
  for (let set = 1; set <= full; set++) {
    const lowest = set & -set // some spool holds the first pull: fixing it keeps each way from being met twice
    for (let sub = set; sub > 0; sub = (sub - 1) & set) {
      if (!(sub & lowest)) continue
      const cost = spool[sub]! + best[set ^ sub]!
      if (cost < best[set]! - 1e-9) {
        best[set] = cost
        taken[set] = sub
      }
    }
  }
  const groups: Pull[][] = []
  for (let set = full; set > 0; set ^= taken[set]!) groups.push(pulls.filter((_, i) => taken[set]! & (1 << i)))
  return groups
}

/** Longest first, into the open spool that it fills best; for each spool length as the usual one, the best of them. */
function bestFit(pulls: readonly Pull[], lengths: readonly number[]): Pull[][] {
  const order = [...pulls].sort((a, b) => b.length_m - a.length_m)
  const bought = (groups: readonly Pull[][]) =>
    groups.reduce((sum, g) => sum + lengths.find((l) => l >= g.reduce((s, p) => s + p.length_m, 0) - 1e-9)!, 0)
  const tries = lengths.map((usual) => {
    const open: { pulls: Pull[]; left: number }[] = []
    for (const p of order) {
      const fit = open.filter((o) => o.left >= p.length_m - 1e-9).sort((a, b) => a.left - b.left)[0]
      if (fit) {
        fit.pulls.push(p)
        fit.left -= p.length_m
      } else
        open.push({
          pulls: [p],
          left:
            Math.max(
              usual,
              lengths.find((l) => l >= p.length_m - 1e-9)!,
            ) - p.length_m,
        })
    }
    return open.map((o) => o.pulls)
  })
  return tries.reduce((a, b) => (bought(b) < bought(a) ? b : a))
}

/** The least that spools holding so many metres can measure together (a covering by whole spools, to the decimetre). */
function leastBought(needed_m: number, lengths: readonly number[], most_m: number): number {
  const [need, most] = [Math.floor(needed_m * 10), Math.round(most_m * 10)]
  const reachable = new Uint8Array(most + 1)
  reachable[0] = 1
  for (let at = 0; at <= most; at++) {
    if (!reachable[at]) continue
    if (at >= need) return at / 10
    for (const l of lengths) if (at + Math.round(l * 10) <= most) reachable[at + Math.round(l * 10)] = 1
  }
  return most_m
}
