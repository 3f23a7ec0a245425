import { apart_m, legsOf, whereIs } from '../map'
import { entries, getOrThrow, type DeviceId, type PathAt, type PlaceId, type Point, type Site } from '../site'
import { layoutOf } from './layout'

/** An earth rod of the usual length, m: 8 ft. */
export const USUAL_ROD_m = 2.4

/** A rod and how far the path stays from it: it must be farther than the rod is long. */
export interface RodClear {
  readonly rod: DeviceId
  readonly place: PlaceId
  readonly long_m: number
  /** Where it stands; null where nobody has said. */
  readonly at: Point | null
  /** To the nearest drawn length of the path; null where either is not on the map. */
  readonly clear_m: number | null
  readonly verdict: 'clear' | 'too_near' | 'unknown'
}
/** Where a rod can be driven. */
export interface RodSpot {
  readonly at: Point
  /** From the box: degrees clockwise from north, and metres. */
  readonly bearing_deg: number
  readonly away_m: number
  readonly clear_m: number
}

/** The path as it is drawn, length by length. */
export function pathLines(site: Site, path: PathAt): Point[][] {
  return layoutOf(site, path).legs.flatMap(({ cable, from }) => {
    const leg = legsOf(site, getOrThrow(site.cables, cable)).find((l) => l.stop === from)
    return leg ? [[...leg.points]] : []
  })
}

/** Rods beside a path, judged by where they stand against its route. */
export function rodsOf(site: Site, path: PathAt): RodClear[] {
  const lines = pathLines(site, path)
  const places = new Set(layoutOf(site, path).spots.map((s) => s.place))
  return entries(site.devices).flatMap(([rod, d]): RodClear[] => {
    if (d.kind !== 'rod' || !places.has(d.place)) return []
    const long_m = d.long_m ?? USUAL_ROD_m
    const clear_m = d.stands === null || lines.length === 0 ? null : toLines_m(lines, d.stands)
    const verdict = clear_m === null ? 'unknown' : clear_m >= long_m ? 'clear' : 'too_near'
    return [{ rod, place: d.place, long_m, at: d.stands, clear_m, verdict }]
  })
}

/** How much farther than its length a rod is advised to stand, and how far the search goes, in lengths of the rod. */
const [ROOM, FARTHEST, STEP] = [1.1, 4, 0.25]
const TURN_deg = 10

/**
 * The nearest spot to a box where a rod stands clear of the drawn path by more than its own length; of spots as near,
 * the clearest. Null where the box is not on the map, or the path leaves no room.
 */
export function rodSpot(site: Site, path: PathAt, place: PlaceId, long_m = USUAL_ROD_m): RodSpot | null {
  const home = whereIs(getOrThrow(site.places, place))
  const lines = pathLines(site, path)
  if (!home || lines.length === 0) return null
  for (let away_m = ROOM * long_m; away_m <= FARTHEST * long_m; away_m += STEP * long_m) {
    const around = Array.from({ length: 360 / TURN_deg }, (_, i): RodSpot => {
      const bearing_deg = i * TURN_deg
      const angle = (bearing_deg * Math.PI) / 180
      const at = { x_m: home.x_m + away_m * Math.sin(angle), y_m: home.y_m + away_m * Math.cos(angle) }
      return { at, bearing_deg, away_m, clear_m: toLines_m(lines, at) }
    })
    const clearest = around.reduce((m, s) => (s.clear_m > m.clear_m + 1e-9 ? s : m))
    // A path that bends round the box leaves the spot nearer to it than to the box.
    if (clearest.clear_m >= long_m) return clearest
  }
  return null
}

const toLines_m = (lines: readonly (readonly Point[])[], at: Point): number =>
  Math.min(...lines.map((line) => Math.min(...line.slice(1).map((b, i) => toPiece_m(line[i]!, b, at)))))

function toPiece_m(a: Point, b: Point, at: Point): number {
  const [x, y] = [b.x_m - a.x_m, b.y_m - a.y_m]
  const long2 = x * x + y * y
  const along = long2 === 0 ? 0 : ((at.x_m - a.x_m) * x + (at.y_m - a.y_m) * y) / long2
  const t = Math.min(1, Math.max(0, along))
  return apart_m(at, { x_m: a.x_m + t * x, y_m: a.y_m + t * y })
}
