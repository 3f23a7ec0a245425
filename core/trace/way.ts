import { apart_m, legsOf } from '../map'
import type { Tracing } from '../record'
import { lookUp, type PlaceId, type Point, type Site, type StopId } from '../site'

/** The way that a trace goes by: the line as it is drawn, and how far along it every stop lies. */
export interface Way {
  readonly points: readonly Point[]
  readonly stops: readonly { readonly stop: StopId; readonly place: PlaceId; readonly along_m: number }[]
}

/**
 * The drawn way of the cable that is traced, from the place where one begins; without a cable, the flags that were put
 * up in their order. Null where neither gives a line.
 */
export function wayOf(site: Site, { cable: on, from }: Tracing, flags: readonly Point[] = []): Way | null {
  const cable = on === null ? undefined : lookUp(site.cables, on)
  if (!cable) return flags.length < 2 ? null : { points: flags, stops: [] }
  const all = legsOf(site, cable)
  const begin = Math.max(
    0,
    all.findIndex((leg) => leg.from === from),
  )
  const first = all[begin]
  if (!first) return null
  const points: Point[] = [...first.points]
  const stops = [
    { stop: first.stop, place: first.from, along_m: 0 },
    { stop: stopAfter(cable.stops, first.stop), place: first.to, along_m: first.length_m },
  ]
  for (const leg of all.slice(begin + 1)) {
    if (apart_m(points.at(-1)!, leg.points[0]!) > 0) break
    points.push(...leg.points.slice(1))
    const along_m = stops.at(-1)!.along_m + leg.length_m
    stops.push({ stop: stopAfter(cable.stops, leg.stop), place: leg.to, along_m })
  }
  return { points, stops }
}
const stopAfter = (stops: readonly { readonly id: StopId }[], stop: StopId): StopId =>
  stops[stops.findIndex((s) => s.id === stop) + 1]!.id

/** A spot on a way and the direction in which it goes on there, a vector of length one. */
interface Heading {
  readonly at: Point
  readonly ahead: Point
}

/** Where on a way a distance along it lies; before its beginning and behind its end it goes straight on. */
export function headingAt(points: readonly Point[], along_m: number): Heading {
  let left_m = along_m
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!]
    const long_m = apart_m(a, b)
    if (long_m > 0 && (left_m <= long_m || i === points.length - 1)) {
      const ahead = { x_m: (b.x_m - a.x_m) / long_m, y_m: (b.y_m - a.y_m) / long_m }
      return { at: { x_m: a.x_m + ahead.x_m * left_m, y_m: a.y_m + ahead.y_m * left_m }, ahead }
    }
    left_m -= long_m
  }
  throw new Error('headingAt: a way of fewer than two points')
}

/** The spot beside a way: so far along it, so far to the right of it. */
export function beside(points: readonly Point[], along_m: number, across_m: number): Point {
  const { at, ahead } = headingAt(points, along_m)
  return { x_m: at.x_m + ahead.y_m * across_m, y_m: at.y_m - ahead.x_m * across_m }
}
