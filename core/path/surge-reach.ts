import { length_m, legsOf, piece } from '../map'
import { getOrThrow, type PathAt, type PlaceId, type Point, type Site, type System } from '../site'
import { layoutOf } from './layout'
import { rodSpot, USUAL_ROD_m } from './rods'

/**
 * The parts of a path, as it is drawn, that lie within so many metres of cable of an arrestor: half the distance that
 * two may be apart is what one of them serves.
 */
export function surgeReach(site: Site, path: PathAt, places: readonly PlaceId[], within_m: number): Point[][] {
  const { spots, legs } = layoutOf(site, path)
  const at = new Set(places)
  const far_m = spots.map((s) => (at.has(s.place) ? 0 : Infinity))
  // A path has few loops, so passing over its lengths until nothing changes takes few passes.
  for (let moved = true; moved;) {
    moved = false
    for (const { a, b, length_m: long_m } of legs)
      for (const [from, to] of [
        [a, b],
        [b, a],
      ] as const)
        if (far_m[from]! + long_m < far_m[to]! - 1e-9) {
          far_m[to] = far_m[from]! + long_m
          moved = true
        }
  }
  return legs.flatMap(({ a, b, cable, from, length_m: long_m }) => {
    const drawn = legsOf(site, getOrThrow(site.cables, cable)).find((l) => l.stop === from)
    if (!drawn || long_m === 0) return []
    const scale = length_m(drawn.points) / long_m
    const [fromA, fromB] = [a, b].map((spot) => Math.max(0, within_m - far_m[spot]!)) as [number, number]
    if (fromA + fromB >= long_m) return [[...drawn.points]]
    return [
      ...(fromA > 0 ? [piece(drawn.points, 0, fromA * scale)] : []),
      ...(fromB > 0 ? [piece(drawn.points, (long_m - fromB) * scale, long_m * scale)] : []),
    ]
  })
}

/** What goes along to put arrestors into so many boxes. */
export interface SurgeKit {
  readonly arrestors: number
  readonly rods: number
  readonly rod_m: number
  readonly clamps: number
  /** Bare copper from arrestor to rod, straight. */
  readonly bond_m: number
  /** Path joints that are opened for the arrestor’s leads: one of either leg a box. */
  readonly joints: number
  readonly connector: System['joints'][number] | null
}

/** A straight bond ends this much above ground at the rod’s clamp and in the box, m. */
const BOND_ENDS_m = 1

/** The kit for these boxes: a rod each, and the bond to where that rod can stand. */
export function surgeKit(site: Site, path: PathAt & { readonly system: System }, places: readonly PlaceId[]): SurgeKit {
  const bonds_m = places.map((p) => (rodSpot(site, path, p)?.away_m ?? USUAL_ROD_m) + BOND_ENDS_m)
  return {
    arrestors: places.length,
    rods: places.length,
    rod_m: USUAL_ROD_m,
    clamps: places.length,
    bond_m: bonds_m.reduce((sum, m) => sum + m, 0),
    joints: 2 * places.length,
    connector: path.system.joints[0] ?? null,
  }
}
