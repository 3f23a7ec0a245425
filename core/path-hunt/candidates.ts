import { USUAL_COSTS, type Costs } from '../hunt'
import { apart_m, whereIs } from '../map'
import { layoutOf, outputsOn, type KnownPath } from '../path'
import type { PathTest } from '../record'
import { getOrThrow, type DeviceId, type PlaceId, type Site } from '../site'

/** A test that can be made, where, and what it takes once one stands at the open box, minutes. */
export interface PathCandidate {
  readonly test: PathTest
  readonly place: PlaceId
  readonly minutes: number
}

/**
 * Minutes beyond the box: a clamp or a meter put on; a number called from the controller; a joint undone and made anew.
 */
const READ_min = 0.5
const CALL_min = 0.4
const HEAR_min = 0.2
const UNDO_min = 5
const UNSCREW_min = 1.5
const LEADS_min = 3

/**
 * Every test of a path that a crew with a clamp and an insulation meter can make, at the controller and in the boxes.
 */
export function pathCandidates(site: Site, path: KnownPath): PathCandidate[] {
  const layout = layoutOf(site, path)
  const home = layout.spots[0]!.place
  const placeOf = (device: DeviceId) => getOrThrow(site.devices, device).place
  const outputs = outputsOn(site, path)
  const numbers = [...new Set(outputs.flatMap((o) => o.address ?? []))]
  const places = [...new Set(layout.spots.map((s) => s.place))]
  const withDecoders = new Set(layout.spots.filter((s) => s.decoders.length > 0).map((s) => s.place))
  const sides = layout.legs.flatMap((leg) => {
    const [a, b] = [layout.spots[leg.a]!.place, layout.spots[leg.b]!.place]
    return [
      { place: a, onto: b },
      { place: b, onto: a },
    ]
  })
  return [
    { test: { kind: 'line_amps' }, place: home, minutes: READ_min },
    { test: { kind: 'reports', number: null }, place: home, minutes: READ_min },
    ...numbers.flatMap((number): PathCandidate[] => [
      { test: { kind: 'added_amps', number }, place: home, minutes: CALL_min },
      { test: { kind: 'reports', number }, place: home, minutes: HEAR_min },
    ]),
    ...places.flatMap((place): PathCandidate[] => [
      ...(place === home || withDecoders.has(place)
        ? [{ test: { kind: 'path_volts' as const, place }, place, minutes: READ_min }]
        : []),
      ...(place === home ? [] : [{ test: { kind: 'looked' as const, place }, place, minutes: READ_min }]),
    ]),
    ...sides.flatMap((side): PathCandidate[] => {
      const undo_min = side.place === home ? UNSCREW_min : UNDO_min
      return [
        { test: { kind: 'length_amps', ...side }, place: side.place, minutes: READ_min },
        { test: { kind: 'legs_earth', ...side }, place: side.place, minutes: undo_min },
        { test: { kind: 'legs_between', ...side }, place: side.place, minutes: undo_min },
      ]
    }),
    ...path.decoders.flatMap(({ device }): PathCandidate[] => [
      { test: { kind: 'lamp', device }, place: placeOf(device), minutes: CALL_min + READ_min },
      { test: { kind: 'number_read', device }, place: placeOf(device), minutes: 1 },
    ]),
    ...outputs.flatMap((o) =>
      o.coils.flatMap((device): PathCandidate[] => [
        { test: { kind: 'coil_apart', device }, place: placeOf(device), minutes: LEADS_min },
        { test: { kind: 'coil_earth', device }, place: placeOf(device), minutes: LEADS_min },
      ]),
    ),
  ]
}

/**
 * Minutes to get from one place to another and open what is there: straight over the map where both are on it, else
 * along the path’s own metres.
 */
export function walkingOn(
  site: Site,
  path: KnownPath,
  costs: Costs = USUAL_COSTS,
): (from: PlaceId, to: PlaceId) => number {
  const layout = layoutOf(site, path)
  const metresFrom = new Map(layout.spots.map((s, i) => [s.place, layout.distance_m[i]!]))
  const home = layout.spots[0]!.place
  return (from, to) => {
    if (from === to) return 0
    const [a, b] = [from, to].map((p) => whereIs(getOrThrow(site.places, p)))
    const along_m = Math.abs((metresFrom.get(from) ?? 0) - (metresFrom.get(to) ?? 0))
    const metres = a && b ? apart_m(a, b) : along_m
    return metres / costs.walk_mPerS / 60 + (to === home ? 0 : costs.open_min)
  }
}
