import { legsOf, whereIs } from '../map'
import { byTag, entries, type Cable, type Place, type Point, type Site } from '../site'

/** The property as it is drawn, metres east and north. */
export interface PlanDrawing {
  readonly lines: readonly { readonly kind: Cable['kind']; readonly points: readonly Point[] }[]
  readonly places: readonly { readonly tag: string; readonly kind: Place['kind']; readonly at: Point }[]
  /** Tags of places that nobody has drawn or found yet. */
  readonly nowhere: readonly string[]
  readonly west_m: number
  readonly south_m: number
  readonly width_m: number
  readonly height_m: number
}

/** What can be drawn of a property; null where no place has a position. */
export function planDrawing(site: Site): PlanDrawing | null {
  const all = Object.values(site.places).sort((a, b) => byTag(a.tag, b.tag))
  const places = all.flatMap((p) => {
    const at = whereIs(p)
    return at ? [{ tag: p.tag, kind: p.kind, at }] : []
  })
  if (places.length === 0) return null
  const lines = entries(site.cables)
    .filter(([, cable]) => cable.kind !== 'jumper')
    .flatMap(([, cable]) => legsOf(site, cable).map(({ points }) => ({ kind: cable.kind, points })))
  const spots = [...places.map((p) => p.at), ...lines.flatMap((l) => l.points)]
  const [xs, ys] = [spots.map((p) => p.x_m), spots.map((p) => p.y_m)]
  const [west_m, south_m] = [Math.min(...xs), Math.min(...ys)]
  return {
    lines,
    places,
    nowhere: all.filter((p) => whereIs(p) === null).map((p) => p.tag),
    west_m,
    south_m,
    width_m: Math.max(...xs) - west_m,
    height_m: Math.max(...ys) - south_m,
  }
}
