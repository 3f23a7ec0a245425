import {
  entries,
  getOrThrow,
  lookUp,
  outputsOf,
  pathOf,
  placeDistances_m,
  routeTo,
  walkFrom,
  walkFromPoint,
  type ControllerId,
  type DeviceId,
  type PlaceId,
  type Run,
  type Site,
  type StationId,
  type Walk,
  type Wiring,
} from '../site'
import { drawn, type Section, type Strip } from './strip'

/** A decoder that a path comes to on the way: a bead on its line. */
export interface Bead {
  readonly decoder: DeviceId
  readonly at_m: number
}
/** An output’s way: along one leg of the path to its decoder, past others, then its own lead to its coils. */
export interface PathStrip extends Strip {
  readonly station: StationId | null
  readonly address: number | null
  readonly decoder: DeviceId
  readonly port: string
  readonly beads: readonly Bead[]
  /** How far along the path its decoder is. */
  readonly path_m: number
}
export interface PathSection extends Omit<Section, 'strips' | 'common'> {
  readonly strips: readonly PathStrip[]
}

/** The ways to all outputs with coils on a controller’s path, grouped by the cable that comes to their decoder. */
export function pathSectionsOf(site: Site, wiring: Wiring, controller: ControllerId): PathSection[] {
  const path = pathOf(site, controller)
  if (!path) return []
  const home = getOrThrow(site.controllers, controller).place
  const walks = path.pairs.map((pair) => walkFrom(site, wiring, controller, pair[0]))
  const legOf = new Map(path.decoders.flatMap(({ device, legs }) => (legs ? [[device, legs[0]] as const] : [])))
  const stations = entries(site.stations).filter(([, s]) => s.controller === controller && s.address !== null)
  const groups = new Map<string, PathStrip[]>()
  const outputs = outputsOf(site)
    .filter((o) => legOf.has(o.decoder) && o.coils.length > 0)
    .sort((a, b) => (a.address ?? Infinity) - (b.address ?? Infinity))
  for (const { decoder, port, address, coils } of outputs) {
    const leg = legOf.get(decoder)!
    const walk = walks.reduce((near, w) =>
      (w.distance_m.get(leg) ?? Infinity) < (near.distance_m.get(leg) ?? Infinity) ? w : near,
    )
    const along = routeTo(walk, leg)
    const path_m = walk.distance_m.get(leg) ?? 0
    const { place } = getOrThrow(site.devices, decoder)
    const own = walkFromPoint(site, wiring, wiring.pointOf({ kind: 'port', device: decoder, port }), place)
    const ends = coils.map((device) => ({ device, ...coilEnd(wiring, own, device) }))
    const lead = [...new Set(ends.flatMap((e) => (e.point === null ? [] : routeTo(own, e.point))))].map((run) => ({
      ...run,
      from_m: run.from_m + path_m,
      to_m: run.to_m + path_m,
    }))
    const passed = placesOn(along)
    const strip: PathStrip = {
      terminal: path.pairs[0]![0],
      ...drawn(site, [...along, ...lead]),
      coils: ends.map(({ device, at_m }) => ({
        device,
        at_m: path_m + at_m,
        place: getOrThrow(site.devices, device).place,
      })),
      station: stations.find(([, s]) => s.address === address && s.valves.some((v) => coils.includes(v)))?.[0] ?? null,
      address,
      decoder,
      port,
      beads: [...legOf.keys()].flatMap((d) => {
        const at_m = passed.get(getOrThrow(site.devices, d).place)
        return at_m === undefined ? [] : [{ decoder: d, at_m }]
      }),
      path_m,
    }
    const last = along.filter((r) => r.link.kind === 'stretch').at(-1)
    const key = last?.link.kind === 'stretch' ? last.link.cable : ''
    groups.set(key, [...(groups.get(key) ?? []), strip])
  }
  return [...groups].map(([key, strips]) => {
    const cable = lookUp(site.cables, key)
    const reached = placeDistances_m(
      strips.map((s) => ({ runs: s.runs.map((r) => ({ ...r, fromPlace: r.from, toPlace: r.to })) })),
    )
    const boxes = [...reached]
      .filter(([place]) => place !== home)
      .map(([place, at_m]) => ({ place, tag: getOrThrow(site.places, place).tag, at_m }))
      .sort((a, b) => a.at_m - b.at_m)
    return { key, name: cable ? cable.name || cable.tag || key : '', boxes, strips }
  })
}

/** Where the lead meets a coil, and how far from the decoder; at the decoder where no wire lies between. */
function coilEnd(wiring: Wiring, walk: Walk, device: DeviceId) {
  const point = (['a', 'b'] as const)
    .map((port) => wiring.pointOf({ kind: 'port', device, port }))
    .find((p) => walk.distance_m.has(p))
  return { point: point ?? null, at_m: point === undefined ? 0 : walk.distance_m.get(point)! }
}

/** Places that a route comes through, with metres to each. */
function placesOn(route: readonly Run[]): ReadonlyMap<PlaceId, number> {
  return new Map(route.map((run) => [run.toPlace, run.to_m]))
}
