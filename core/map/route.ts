import {
  getOrThrow,
  stopPositions_m,
  type Cable,
  type Place,
  type PlaceId,
  type Point,
  type Site,
  type StopId,
  type WayMark,
} from '../site'

/** Where a place is: where it was found, else where it is drawn; null for nowhere yet. */
export const whereIs = (place: Place): Point | null => (place.foundAt ?? place.position)?.value ?? null

/** Metres between where a place was drawn and where it was found; null unless both are on record. */
export const stray_m = ({ position, foundAt }: Place): number | null =>
  position && foundAt ? apart_m(position.value, foundAt.value) : null

export const apart_m = (a: Point, b: Point): number => Math.hypot(a.x_m - b.x_m, a.y_m - b.y_m)

/** A stretch of a cable as it is drawn, from one stop to the next. */
export interface Leg {
  readonly stop: StopId
  readonly from: PlaceId
  readonly to: PlaceId
  readonly points: readonly Point[]
  readonly length_m: number
}

/**
 * The legs of a cable that can be drawn: both of their places have a position. A cable without bends on a leg lies
 * beside the one that has them between the same places: leads share the trench of their common.
 */
export function legsOf(site: Site, cable: Cable): Leg[] {
  return cable.stops.slice(0, -1).flatMap((stop, i): Leg[] => {
    const to = cable.stops[i + 1]!.place
    const [a, b] = [whereIs(getOrThrow(site.places, stop.place)), whereIs(getOrThrow(site.places, to))]
    if (!a || !b) return []
    const points = [a, ...(cable.bends[stop.id] ?? bendsBetween(site).get(`${stop.place} ${to}`) ?? []), b]
    return [{ stop: stop.id, from: stop.place, to, points, length_m: length_m(points) }]
  })
}

const bendsMade = new WeakMap<Site, ReadonlyMap<string, readonly Point[]>>()

/** The bends between two places, as the first cable that has any goes. */
function bendsBetween(site: Site): ReadonlyMap<string, readonly Point[]> {
  const made = bendsMade.get(site)
  if (made) return made
  const bends = new Map<string, readonly Point[]>()
  for (const cable of Object.values(site.cables))
    cable.stops.slice(0, -1).forEach((stop, i) => {
      const own = cable.bends[stop.id]
      const key = `${stop.place} ${cable.stops[i + 1]!.place}`
      if (own && own.length > 0 && !bends.has(key)) bends.set(key, own)
    })
  bendsMade.set(site, bends)
  return bends
}

/** Length of a line of points, m. */
export const length_m = (points: readonly Point[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + apart_m(points[i]!, p), 0)

/** Metres from the cabinet to every stop along the drawn way; null from the first leg on that cannot be drawn. */
export function drawnDistances_m(site: Site, cable: Cable): (number | null)[] {
  const legs = new Map(legsOf(site, cable).map((l) => [l.stop, l]))
  let reached: number | null = 0
  return cable.stops.map((_, i) => {
    if (i > 0) {
      const leg = legs.get(cable.stops[i - 1]!.id)
      reached = reached === null || !leg ? null : reached + leg.length_m
    }
    return reached
  })
}

/** The part of a line between two distances along it, m; empty where it lies beyond the line. */
export function piece(points: readonly Point[], from_m: number, to_m: number): Point[] {
  const found: Point[] = []
  let at_m = 0
  points.slice(1).forEach((b, i) => {
    const a = points[i]!
    const long_m = apart_m(a, b)
    const [start, end] = [Math.max(from_m, at_m), Math.min(to_m, at_m + long_m)]
    if (start <= end && long_m > 0) {
      const on = (d: number): Point => ({
        x_m: a.x_m + ((b.x_m - a.x_m) * (d - at_m)) / long_m,
        y_m: a.y_m + ((b.y_m - a.y_m) * (d - at_m)) / long_m,
      })
      if (found.length === 0) found.push(on(start))
      if (end > start) found.push(on(end))
    }
    at_m += long_m
  })
  return found
}

/**
 * The part of the drawn way that a sleeve or a hazard covers: metres along the jacket, counted from where its first
 * stop lies.
 */
export function markLine(site: Site, cable: Cable, { from_m, to_m }: WayMark): Point[] {
  const start_m = stopPositions_m(cable)[0]!.value
  return piece(lineOf(site, cable), from_m - start_m, to_m - start_m)
}

/** The drawn line of a whole cable, as far as it can be drawn without a gap from the cabinet. */
export function lineOf(site: Site, cable: Cable): Point[] {
  const line: Point[] = []
  for (const leg of legsOf(site, cable)) {
    if (line.length > 0 && apart_m(line.at(-1)!, leg.points[0]!) > 0) break
    line.push(...(line.length === 0 ? leg.points : leg.points.slice(1)))
  }
  return line
}
