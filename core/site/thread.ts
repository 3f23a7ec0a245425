import { entries } from './look-up'
import { netsOf } from './nets'
import { stopPositions_m } from './stretch'
import { terminalEnd, type Link, type WirePoint, type Wiring } from './wiring'
import type { ControllerId, PlaceId, TerminalId } from './ids'
import type { Site } from './site'

/** A link of a thread, the point by which it is entered, and its distance from the controller along the conductors. */
export interface Run {
  readonly link: Link
  readonly entry: WirePoint
  readonly from_m: number
  readonly to_m: number
  readonly fromPlace: PlaceId
  readonly toPlace: PlaceId
}

/** All that copper and joints join to one terminal, walked outward from it by length. */
export interface Walk {
  readonly runs: readonly Run[]
  /** Metres from the terminal to every point reached. */
  readonly distance_m: ReadonlyMap<WirePoint, number>
  /** The link by which each point was reached first. */
  readonly reachedBy: ReadonlyMap<WirePoint, Run>
}

/** Nominal length of a link in metres; a joint and a coil have none. */
export function linkLength_m(site: Site, link: Link): number {
  if (link.kind !== 'stretch') return 0
  const at = stopPositions_m(site.cables[link.cable]!)
  return Math.max(0, at[link.to]!.value - at[link.from]!.value)
}

/**
 * Walks the conductors on one terminal outward, nearest first (Dijkstra on metres of conductor). Coils are not crossed
 * and broken parts are walked like whole ones: this is where the copper lies, not whether it conducts.
 */
export const walkFrom = (site: Site, wiring: Wiring, controller: ControllerId, terminal: TerminalId): Walk =>
  walkFromPoint(site, wiring, wiring.pointOf(terminalEnd(controller, terminal)), site.controllers[controller]!.place)

/** The same from any point of the wiring, which lies at `home`. */
export function walkFromPoint(site: Site, wiring: Wiring, start: WirePoint, home: PlaceId): Walk {
  const nets = netsOf(wiring)
  const net = nets.of(start)
  const around = new Map<WirePoint, { link: Link; length_m: number }[]>()
  const links = wiring.links.filter((link) => link.kind !== 'coil' && nets.of(link.a) === net)
  for (const link of links) {
    const length_m = linkLength_m(site, link)
    for (const point of [link.a, link.b]) around.set(point, [...(around.get(point) ?? []), { link, length_m }])
  }
  const distance_m = new Map<WirePoint, number>([[start, 0]])
  const reachedBy = new Map<WirePoint, Run>()
  const runs: Run[] = []
  const done = new Set<WirePoint>()
  const walked = new Set<Link>()
  const placeOf = (point: WirePoint) => wiring.placeOf.get(point) ?? home
  for (;;) {
    const here = nearest(distance_m, done)
    if (here === null) break
    done.add(here)
    for (const { link, length_m } of around.get(here) ?? []) {
      if (walked.has(link)) continue
      walked.add(link)
      const there = link.a === here ? link.b : link.a
      const from_m = distance_m.get(here)!
      const run = {
        link,
        entry: here,
        from_m,
        to_m: from_m + length_m,
        fromPlace: placeOf(here),
        toPlace: placeOf(there),
      }
      runs.push(run)
      if (run.to_m < (distance_m.get(there) ?? Infinity)) {
        distance_m.set(there, run.to_m)
        reachedBy.set(there, run)
      }
    }
  }
  return { runs, distance_m, reachedBy }
}

function nearest(distance_m: ReadonlyMap<WirePoint, number>, done: ReadonlySet<WirePoint>): WirePoint | null {
  let best: WirePoint | null = null
  for (const [point, d] of distance_m)
    if (!done.has(point) && (best === null || d < distance_m.get(best)!)) best = point
  return best
}

/** The runs from the terminal to a point of its net, in order; empty for the terminal itself or a point not reached. */
export function routeTo(walk: Walk, point: WirePoint): Run[] {
  const route: Run[] = []
  for (let run = walk.reachedBy.get(point); run; run = walk.reachedBy.get(run.entry)) route.unshift(run)
  return route
}

/** Metres of conductor from the controller to every place the given walks reach, the shortest way. */
export function placeDistances_m(
  walks: readonly { readonly runs: readonly Pick<Run, 'fromPlace' | 'toPlace' | 'from_m' | 'to_m'>[] }[],
): Map<PlaceId, number> {
  const at = new Map<PlaceId, number>()
  for (const { runs } of walks) {
    for (const run of runs) {
      for (const [place, d] of [
        [run.fromPlace, run.from_m],
        [run.toPlace, run.to_m],
      ] as const)
        if (d < (at.get(place) ?? Infinity)) at.set(place, d)
    }
  }
  return at
}

/** Terminals of a controller in the order of its door. */
export function terminalsInOrder(site: Site, controller: ControllerId): TerminalId[] {
  return entries(site.controllers[controller]!.terminals)
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([id]) => id)
}
