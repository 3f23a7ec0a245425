import type { Point } from '../site'

/**
 * How far counted steps are out, one standard deviation: a part of the way and a step’s half; a direction taken by a
 * phone’s compass by so much. Our own figures, for somebody who has measured their step.
 */
export const [PACE_ratio, PACE_m, BEARING_deg] = [0.04, 0.3, 8] as const

const radians = (degrees: number) => (degrees * Math.PI) / 180

/** Where one stands after walking so far from a spot, `bearing_deg` clockwise from north. */
export const walked = (from: Point, distance_m: number, bearing_deg: number): Point => ({
  x_m: from.x_m + distance_m * Math.sin(radians(bearing_deg)),
  y_m: from.y_m + distance_m * Math.cos(radians(bearing_deg)),
})

/** Within how many metres that holds: how far and which way are out independently of each other. */
export const walkedWithin_m = (distance_m: number): number =>
  Math.hypot(PACE_m + PACE_ratio * distance_m, distance_m * Math.sin(radians(BEARING_deg)))
