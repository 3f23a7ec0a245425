import type { Point } from '../../core/site'

const EIGHTHS = ['n', 'ne', 'e', 'se', 's', 'sw', 'w', 'nw'] as const
export type Eighth = (typeof EIGHTHS)[number]

/** How far one spot lies from another, and to which side of the compass. */
export function towards(from: Point, to: Point): { distance_m: number; direction: Eighth } {
  const [east, north] = [to.x_m - from.x_m, to.y_m - from.y_m]
  const turn = Math.round((Math.atan2(east, north) / (2 * Math.PI)) * 8)
  return { distance_m: Math.hypot(east, north), direction: EIGHTHS[(turn + 8) % 8]! }
}

/**
 * The spot at two distances from two others, on the left or the right of the way from the first to the second;
 * null where no spot is.
 */
export function atDistances(
  first: Point,
  second: Point,
  [first_m, second_m]: readonly [number, number],
  side: 'left' | 'right',
): Point | null {
  const apart_m = Math.hypot(second.x_m - first.x_m, second.y_m - first.y_m)
  const along_m = (first_m ** 2 - second_m ** 2 + apart_m ** 2) / (2 * apart_m)
  const square = first_m ** 2 - along_m ** 2
  if (!(apart_m > 0) || square < 0) return null
  const aside_m = Math.sqrt(square) * (side === 'left' ? 1 : -1)
  const [x, y] = [(second.x_m - first.x_m) / apart_m, (second.y_m - first.y_m) / apart_m]
  return { x_m: first.x_m + x * along_m - y * aside_m, y_m: first.y_m + y * along_m + x * aside_m }
}
