import {
  DisjointSets,
  getOrThrow,
  linkLength_m,
  netsOf,
  terminalEnd,
  wiringOf,
  type CableId,
  type DeviceId,
  type Link,
  type PathAt,
  type PlaceId,
  type Site,
  type StopId,
  type WirePoint,
} from '../site'

type Stretch = Extract<Link, { kind: 'stretch' }>

/**
 * A length of path between two spots: the conductors of either leg in it. Parallel cores of one cable are one length.
 */
export interface PathLeg {
  readonly a: number
  readonly b: number
  readonly cable: CableId
  readonly from: StopId
  readonly length_m: number
  readonly first: readonly Stretch[]
  readonly second: readonly Stretch[]
}

/** Where lengths of path meet, end or pass a box. Spot 0 is the controller. */
export interface PathSpot {
  readonly place: PlaceId
  readonly decoders: readonly DeviceId[]
  /** Lengths that meet here, by number. */
  readonly legs: readonly number[]
}

/**
 * A path as it lies: spots joined by lengths, laid out from the controller. `parent` is the length by which each spot
 * is nearest, which makes a tree; the length of a loop that none is nearest by closes it.
 */
export interface PathLayout {
  readonly spots: readonly PathSpot[]
  readonly legs: readonly PathLeg[]
  readonly distance_m: readonly number[]
  readonly parent: readonly (number | null)[]
  /** Spots from the controller outward. */
  readonly outward: readonly number[]
  /** Lengths that close a loop. */
  readonly closing: readonly number[]
}

/** The cores of a path, as `cable/core`. */
export const coresOf = ({ legs }: PathLayout): ReadonlySet<string> =>
  new Set(legs.flatMap((l) => [...l.first, ...l.second].map((s) => `${s.cable}/${s.core}`)))

const made = new WeakMap<PathAt, PathLayout>()

/** How a path lies, by the wiring on record; broken parts count as whole. */
export function layoutOf(site: Site, path: PathAt): PathLayout {
  if (!made.has(path)) made.set(path, readLayout(site, path))
  return made.get(path)!
}

function readLayout(site: Site, path: PathAt): PathLayout {
  const wiring = wiringOf(site)
  // Points that a joint makes one spot, in several connectors too: a jumper between two is no length of path.
  const isJumper = (link: Stretch) => getOrThrow(site.cables, link.cable).kind === 'jumper'
  const joints = new DisjointSets<WirePoint>()
  for (const link of wiring.links)
    if (link.kind === 'leg' || (link.kind === 'stretch' && isJumper(link))) joints.join(link.a, link.b)
  const home = getOrThrow(site.controllers, path.controller).place
  const spotAt = new Map<WirePoint, number>()
  const spots: { place: PlaceId; decoders: DeviceId[]; legs: number[] }[] = [{ place: home, decoders: [], legs: [] }]
  for (const pair of path.pairs) spotAt.set(joints.of(wiring.pointOf(terminalEnd(path.controller, pair[0]))), 0)
  const spot = (point: WirePoint): number => {
    const root = joints.of(point)
    const known = spotAt.get(root)
    if (known !== undefined) return known
    spotAt.set(root, spots.length)
    spots.push({ place: wiring.placeOf.get(point) ?? home, decoders: [], legs: [] })
    return spots.length - 1
  }
  const nets = netsOf(wiring)
  const sideOf = (link: Stretch): 0 | 1 | null => {
    const net = nets.of(link.a)
    return path.nets[0].has(net) ? 0 : path.nets[1].has(net) ? 1 : null
  }
  const seconds = new Map<string, Stretch[]>()
  const lengths = new Map<string, { of: Stretch; first: Stretch[] }>()
  for (const link of wiring.links) {
    if (link.kind !== 'stretch' || isJumper(link)) continue
    const side = sideOf(link)
    const key = `${link.cable}@${link.from}`
    if (side === 1) seconds.set(key, [...(seconds.get(key) ?? []), link])
    if (side === 0) {
      const length = lengths.get(key)
      if (length) length.first.push(link)
      else lengths.set(key, { of: link, first: [link] })
    }
  }
  const legs: PathLeg[] = [...lengths].map(([key, { of, first }]) => ({
    a: spot(of.a),
    b: spot(of.b),
    cable: of.cable,
    from: getOrThrow(site.cables, of.cable).stops[of.from]!.id,
    length_m: linkLength_m(site, of),
    first,
    second: seconds.get(key) ?? [],
  }))
  legs.forEach(({ a, b }, i) => {
    spots[a]!.legs.push(i)
    spots[b]!.legs.push(i)
  })
  for (const { device, legs: own } of path.decoders) {
    const at = own === null ? undefined : spotAt.get(joints.of(own[0]))
    if (at !== undefined) spots[at]!.decoders.push(device)
  }
  return { spots, legs, ...fromController(spots, legs) }
}

/** The nearest way from the controller to every spot (Dijkstra on metres of cable). */
function fromController(spots: readonly PathSpot[], legs: readonly PathLeg[]) {
  const distance_m = spots.map((_, i) => (i === 0 ? 0 : Infinity))
  const parent: (number | null)[] = spots.map(() => null)
  const done = new Set<number>()
  const outward: number[] = []
  for (;;) {
    let here = -1
    distance_m.forEach((d, i) => {
      if (!done.has(i) && d < (distance_m[here] ?? Infinity)) here = i
    })
    if (here < 0) break
    done.add(here)
    outward.push(here)
    for (const i of spots[here]!.legs) {
      const leg = legs[i]!
      const there = leg.a === here ? leg.b : leg.a
      const by_m = distance_m[here]! + leg.length_m
      if (by_m >= distance_m[there]!) continue
      distance_m[there] = by_m
      parent[there] = i
    }
  }
  const used = new Set(parent)
  const closing = legs.flatMap((leg, i) => (used.has(i) || !done.has(leg.a) || !done.has(leg.b) ? [] : [i]))
  return { distance_m, parent, outward, closing }
}
