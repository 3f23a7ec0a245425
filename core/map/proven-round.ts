import { steadyChance } from '../chance'
import type { Point } from '../site'
import { apart_m } from './route'
import { oneTreeBound, type Allowed } from './one-tree'
import { shortestRound } from './shortest-round'

/** A round on foot with a length that no round undercuts. */
export interface ProvenRound {
  /** Places in the list of stops. */
  readonly order: readonly number[]
  readonly length_m: number
  readonly bound_m: number
}

/** So many stops `shortestRound` settles exactly. */
const EXACT_STOPS = 12
/** A gap of this part of the length is proof enough. */
const NEAR_ratio = 0.01
const [KICKS, MOST_BRANCHES] = [150, 600]

/**
 * The order in which stops are best visited from a place and back to it, straight from stop to stop, and how short any
 * order could be. Exact up to twelve stops. Beyond, chains of two or three stops are moved and ways exchanged until
 * nothing shortens it, from many beginnings (iterated local search); the bound is of minimal 1-trees under Lagrangian
 * prices (Held and Karp 1970), branched on until it is within a hundredth or enough was tried.
 */
export function provenRound(home: Point, stops: readonly Point[]): ProvenRound {
  const apart = apartOf(home, stops)
  const tour = shortTour(home, stops, apart)
  const length_m = lengthOf(tour, apart)
  const bound_m = stops.length <= EXACT_STOPS ? length_m : Math.min(length_m, branched(apart, length_m))
  return { order: stopsOf(tour), length_m, bound_m }
}

/** The same order, without looking how much shorter another could be. */
export const roundOnFoot = (home: Point, stops: readonly Point[]): number[] =>
  stopsOf(shortTour(home, stops, apartOf(home, stops)))

/** A tour begins at home, which is nought. */
const stopsOf = (tour: readonly number[]): number[] => tour.slice(1).map((i) => i - 1)

function apartOf(home: Point, stops: readonly Point[]): Apart {
  const at = [home, ...stops]
  return at.map((a) => at.map((b) => apart_m(a, b)))
}

function shortTour(home: Point, stops: readonly Point[], apart: Apart): readonly number[] {
  const begin = [0, ...shortestRound(home, stops).map((i) => i + 1)]
  return stops.length <= EXACT_STOPS ? begin : kicked(begin, apart)
}

type Apart = readonly (readonly number[])[]

/** The length of a closed tour. */
const lengthOf = (tour: readonly number[], apart: Apart): number =>
  tour.reduce((sum, node, i) => sum + apart[node]![tour[(i + 1) % tour.length]!]!, 0)

/** Lengths that differ by less are alike: the rounding of sums. */
const SHORTER_m = 1e-7

/** Kicks a tour out of where it is stuck and settles it again; keeps what is shorter. Home stays first. */
function kicked(begin: readonly number[], apart: Apart): number[] {
  const random = steadyChance(begin.length)
  let best = settled(begin, apart)
  let best_m = lengthOf(best, apart)
  for (let kick = 0; kick < KICKS; kick++) {
    // The double bridge: three cuts, the middle parts change places, which no exchange of two ways undoes.
    const cuts = [0, 0, 0].map(() => 1 + Math.floor(random() * (best.length - 1))).sort((a, b) => a - b)
    const [a, b, c] = cuts as [number, number, number]
    const tour = settled([...best.slice(0, a), ...best.slice(b, c), ...best.slice(a, b), ...best.slice(c)], apart)
    const length_m = lengthOf(tour, apart)
    if (length_m < best_m - SHORTER_m) [best, best_m] = [tour, length_m]
  }
  return best
}

/** Exchanges of two ways and moves of up to three stops, until none shortens the tour. */
function settled(start: readonly number[], apart: Apart): number[] {
  let tour = [...start]
  const count = tour.length
  const d = (i: number, j: number) => apart[tour[i % count]!]![tour[j % count]!]!
  for (let shorter = true; shorter;) {
    shorter = false
    for (let i = 0; i < count - 1; i++)
      for (let j = i + 2; j < count + (i === 0 ? -1 : 0); j++) {
        if (d(i, j) + d(i + 1, j + 1) >= d(i, i + 1) + d(j, j + 1) - SHORTER_m) continue
        tour = [...tour.slice(0, i + 1), ...tour.slice(i + 1, j + 1).reverse(), ...tour.slice(j + 1)]
        shorter = true
      }
    for (let long = 1; long <= 3; long++)
      for (let i = 1; i + long <= count; i++) {
        const taken = d(i - 1, i) + d(i + long - 1, i + long) - d(i - 1, i + long)
        const chain = tour.slice(i, i + long)
        const rest = [...tour.slice(0, i), ...tour.slice(i + long)]
        const put = rest.map((node, k) => {
          const next = rest[(k + 1) % rest.length]!
          const [first, last] = [chain[0]!, chain.at(-1)!]
          const along = apart[node]![first]! + apart[last]![next]! - apart[node]![next]!
          const turned = apart[node]![last]! + apart[first]![next]! - apart[node]![next]!
          return { k, more: Math.min(along, turned), isTurned: turned < along }
        })
        const best = put.reduce((m, p) => (p.more < m.more ? p : m))
        if (best.more >= taken - SHORTER_m) continue
        if (best.isTurned) chain.reverse()
        tour = [...rest.slice(0, best.k + 1), ...chain, ...rest.slice(best.k + 1)]
        shorter = true
      }
  }
  return tour
}

/** The least bound over branches, each of which forbids or demands ways at a stop that a 1-tree gives three. */
function branched(apart: Apart, length_m: number): number {
  const enough_m = length_m * (1 - NEAR_ratio)
  const root: Allowed = { demanded: new Set(), forbidden: new Set() }
  let open = [{ allowed: root, ...oneTreeBound(apart, root, length_m) }]
  let settled_m = Infinity
  for (let n = 0; n < MOST_BRANCHES && open.length > 0; n++) {
    open.sort((a, b) => a.bound_m - b.bound_m)
    const { allowed, bound_m, crowded, prices } = open[0]!
    if (bound_m >= enough_m) break
    open = open.slice(1)
    // A 1-tree in which every stop has two ways is a round: nothing in this branch is shorter.
    if (crowded === null) {
      settled_m = Math.min(settled_m, bound_m)
      continue
    }
    const [one, two, ...others] = crowded.filter((way) => !allowed.demanded.has(way))
    if (one === undefined) continue
    const branch = (demand: readonly number[], forbid: readonly number[]): Allowed => ({
      demanded: new Set([...allowed.demanded, ...demand]),
      forbidden: new Set([...allowed.forbidden, ...forbid]),
    })
    const branches =
      two === undefined
        ? [branch([], [one]), branch([one], [])]
        : [branch([], [one]), branch([one], [two]), branch([one, two], others)]
    open.push(...branches.map((b) => ({ allowed: b, ...oneTreeBound(apart, b, length_m, prices) })))
  }
  return Math.min(settled_m, ...open.map((o) => o.bound_m), length_m)
}
