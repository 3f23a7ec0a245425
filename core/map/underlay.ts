import type { Point, Underlay } from '../site'

/**
 * A picture's pixels as metres: x = a·px + b·py + c, y = b·px − a·py + d; turned and scaled alike in all directions.
 */
export interface Placement {
  readonly a: number
  readonly b: number
  readonly c: number
  readonly d: number
  readonly metresPerPixel: number
  readonly tied: boolean
}

/** Ties nearer than this to one another on the picture say nothing of its scale. */
const LEAST_APART_px = 2

/**
 * The similarity that brings a picture under the map, by its two ties; with fewer its width and the middle at the
 * origin, or at the one tie. Pixels count from the upper left corner, down.
 */
export function placementOf({ ties, width_px, height_px, width_m }: Underlay): Placement {
  const [one, two] = ties
  if (one && two && Math.hypot(two.px - one.px, two.py - one.py) >= LEAST_APART_px) {
    // Complex: metres = k · (px − i·py) + t, with k from the two ties.
    const [dx, dy] = [two.px - one.px, -(two.py - one.py)]
    const [ex, ey] = [two.at.x_m - one.at.x_m, two.at.y_m - one.at.y_m]
    const norm = dx * dx + dy * dy
    const [a, b] = [(ex * dx + ey * dy) / norm, (ey * dx - ex * dy) / norm]
    return {
      a,
      b,
      c: one.at.x_m - a * one.px - b * one.py,
      d: one.at.y_m - b * one.px + a * one.py,
      metresPerPixel: Math.hypot(a, b),
      tied: true,
    }
  }
  const a = width_m / width_px
  const [px, py, at] = one ? [one.px, one.py, one.at] : [width_px / 2, height_px / 2, { x_m: 0, y_m: 0 }]
  return { a, b: 0, c: at.x_m - a * px, d: at.y_m + a * py, metresPerPixel: a, tied: false }
}

/** The place on the property that a pixel shows. */
export const atPixel = ({ a, b, c, d }: Placement, px: number, py: number): Point => ({
  x_m: a * px + b * py + c,
  y_m: b * px - a * py + d,
})

/** The pixel that shows a place; the inverse of `atPixel`. */
export function pixelAt({ a, b, c, d }: Placement, { x_m, y_m }: Point): { px: number; py: number } {
  const norm = a * a + b * b
  const [u, v] = [x_m - c, y_m - d]
  return { px: (a * u + b * v) / norm, py: (b * u - a * v) / norm }
}
