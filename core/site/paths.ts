import type { ControllerId, DeviceId, PlaceId, SystemId, TerminalId } from './ids'
import { entries, getOrThrow, lookUp } from './look-up'
import { netsOf } from './nets'
import type { Site } from './site'
import type { System } from './system'
import { terminalEnd, wiringOf, type WirePoint } from './wiring'

/**
 * A decoder on a path: its leads on the leg of the first screws and of the second; both null where one leg has both.
 */
export interface OnPath {
  readonly device: DeviceId
  readonly legs: readonly [first: WirePoint, second: WirePoint] | null
}

/** The two-wire path of a controller, as it is wired: all ways out of it together. */
export interface PathAt {
  readonly controller: ControllerId
  readonly systemId: SystemId | null
  readonly system: System | null
  /** Its screws, a pair for each way out. */
  readonly pairs: readonly (readonly [TerminalId, TerminalId])[]
  /** The nets of the two legs; one a way out where the ways are not joined. */
  readonly nets: readonly [ReadonlySet<WirePoint>, ReadonlySet<WirePoint>]
  readonly decoders: readonly OnPath[]
}

/** The path screws of a controller, two by two in the order of its door: each pair is one way out. */
export function pathPairs(site: Site, controller: ControllerId): (readonly [TerminalId, TerminalId])[] {
  const screws = entries(getOrThrow(site.controllers, controller).terminals)
    .filter(([, t]) => t.role === 'path')
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([id]) => id)
  return Array.from({ length: Math.floor(screws.length / 2) }, (_, i) => [screws[2 * i]!, screws[2 * i + 1]!] as const)
}

const made = new WeakMap<Site, readonly PathAt[]>()

/** Every two-wire path of the property; broken parts count as whole: this is what hangs together, not what conducts. */
export function pathsOf(site: Site): readonly PathAt[] {
  if (!made.has(site)) made.set(site, readPaths(site))
  return made.get(site)!
}

/** The path of a controller; null where it has no pair of path screws. */
export const pathOf = (site: Site, controller: ControllerId): PathAt | null =>
  pathsOf(site).find((p) => p.controller === controller) ?? null

function readPaths(site: Site): PathAt[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const ports = entries(site.devices).flatMap(([device, d]) => {
    if (d.kind !== 'decoder') return []
    const points = (['path_1', 'path_2'] as const).map((port) => wiring.pointOf({ kind: 'port', device, port }))
    return [{ device, points: points as [WirePoint, WirePoint] }]
  })
  return entries(site.controllers).flatMap(([controller, record]) => {
    const pairs = pathPairs(site, controller)
    if (pairs.length === 0) return []
    const netsAt = (side: 0 | 1) =>
      new Set(pairs.map((pair) => nets.of(wiring.pointOf(terminalEnd(controller, pair[side])))))
    const legs = [netsAt(0), netsAt(1)] as const
    const decoders = ports.flatMap(({ device, points }): OnPath[] => {
      const [one, two] = points.map((point) => legs.findIndex((leg) => leg.has(nets.of(point))))
      if (one === -1 && two === -1) return []
      if (one === -1 || two === -1 || one === two) return [{ device, legs: null }]
      return [{ device, legs: one === 0 ? points : [points[1], points[0]] }]
    })
    const { system: systemId } = record
    const system = systemId === null ? null : (lookUp(site.systems, systemId) ?? null)
    return [{ controller, systemId, system, pairs, nets: legs, decoders }]
  })
}

/** The cores, as `cable/core`, that belong to a leg of a path somewhere. */
export function coresOnPaths(site: Site): ReadonlySet<string> {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const legs = pathsOf(site).flatMap((p) => p.nets)
  return new Set(
    legs.length === 0
      ? []
      : wiring.links.flatMap((link) =>
          link.kind === 'stretch' && legs.some((leg) => leg.has(nets.of(link.a))) ? [`${link.cable}/${link.core}`] : [],
        ),
  )
}

/** The places that a leg of a path comes to. */
export function placesOnPaths(site: Site): ReadonlySet<PlaceId> {
  const { links, placeOf } = wiringOf(site)
  const cores = coresOnPaths(site)
  return new Set(
    links.flatMap((link) =>
      link.kind === 'stretch' && cores.has(`${link.cable}/${link.core}`)
        ? [link.a, link.b].flatMap((point) => placeOf.get(point) ?? [])
        : [],
    ),
  )
}
