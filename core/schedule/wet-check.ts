import { provenRound, whereIs, apart_m } from '../map'
import { getOrThrow, lookUp, type ControllerId, type PlaceId, type Site, type StationId } from '../site'
import { stationsInOrder } from './station'

/** How long one looks at a zone that runs, and how fast one walks across beds. */
export interface WetCheckRules {
  readonly look_min: number
  readonly walk_mPerMin: number
}
export const USUAL_WET_CHECK: WetCheckRules = { look_min: 2, walk_mPerMin: 60 }

/** A station of a wet check: it runs while one walks to it, and while one looks. */
export interface WetStation {
  readonly station: StationId
  readonly minutes: number
}
export interface WetStop {
  readonly place: PlaceId
  /** From the stop before, or the cabinet. */
  readonly walk_m: number
  readonly stations: readonly WetStation[]
}
export interface WetCheck {
  readonly stops: readonly WetStop[]
  readonly walk_m: number
  /** No order is shorter than this. */
  readonly bound_m: number
  readonly minutes: number
  /** Stations whose valves are in no box on the map, or that have none; they come last, from the cabinet. */
  readonly unplaced: readonly WetStation[]
}

/**
 * Every station of a controller for a few minutes, in the order of the shortest walk from the cabinet
 * and back, straight from box to box; stations of one box are one stop. Each runs as long as one walks
 * to it from the one before, and looks.
 */
export function wetCheck(site: Site, controller: ControllerId, rules: WetCheckRules = USUAL_WET_CHECK): WetCheck {
  const cabinet = getOrThrow(site.controllers, controller).place
  const home = whereIs(getOrThrow(site.places, cabinet))
  const stations = stationsInOrder(site, controller).filter(([, s]) => s.valves.length > 0)
  const byPlace = new Map<PlaceId, StationId[]>()
  const unplaced: StationId[] = []
  for (const [id, s] of stations) {
    const device = lookUp(site.devices, s.valves[0]!)
    const at = device && whereIs(getOrThrow(site.places, device.place))
    if (!home || !at) unplaced.push(id)
    else byPlace.set(device.place, [...(byPlace.get(device.place) ?? []), id])
  }
  const places = [...byPlace.keys()]
  const spots = places.map((p) => whereIs(getOrThrow(site.places, p))!)
  const round = home ? provenRound(home, spots) : { order: [], length_m: 0, bound_m: 0 }
  const minutesFor = (walk_m: number) => Math.ceil(walk_m / rules.walk_mPerMin + rules.look_min)
  let from = home
  const stops = round.order.map((i): WetStop => {
    const walk_m = apart_m(from!, spots[i]!)
    from = spots[i]!
    const own = byPlace.get(places[i]!)!
    return {
      place: places[i]!,
      walk_m,
      stations: own.map((station, k) => ({ station, minutes: minutesFor(k === 0 ? walk_m : 0) })),
    }
  })
  const last = unplaced.map((station) => ({ station, minutes: minutesFor(0) }))
  return {
    stops,
    walk_m: round.length_m,
    bound_m: round.bound_m,
    minutes: [...stops.flatMap((s) => s.stations), ...last].reduce((sum, s) => sum + s.minutes, 0),
    unplaced: last,
  }
}
