import type { Point, Site } from '../site'

export interface LatLon {
  readonly latitude_deg: number
  readonly longitude_deg: number
}
export type Origin = NonNullable<Site['about']['origin']>

/** WGS 84: semi-major axis, m, and first eccentricity squared. */
const [A_m, E2] = [6_378_137, 0.006_694_379_990_14]
const RADIANS = Math.PI / 180

/** Metres per degree north and east at the origin: the meridian's and the parallel's radii of curvature. */
function scale_mPerDeg({ latitude_deg }: Origin): { north: number; east: number } {
  const sin = Math.sin(latitude_deg * RADIANS)
  const w = 1 - E2 * sin * sin
  return {
    north: (RADIANS * A_m * (1 - E2)) / w ** 1.5,
    east: (RADIANS * A_m * Math.cos(latitude_deg * RADIANS)) / Math.sqrt(w),
  }
}

/**
 * Local metres as degrees. The plane touches the ellipsoid at the origin: within 1 km the error of a distance stays
 * under 0.02 % up to 60° of latitude, under a hand's breadth on a garden.
 */
export function toLatLon(origin: Origin, { x_m, y_m }: Point): LatLon {
  const { north, east } = scale_mPerDeg(origin)
  return { latitude_deg: origin.latitude_deg + y_m / north, longitude_deg: around(origin.longitude_deg + x_m / east) }
}

/** Degrees as local metres; the inverse of `toLatLon`. */
export function toLocal(origin: Origin, at: LatLon): Point {
  const { north, east } = scale_mPerDeg(origin)
  return {
    x_m: around(at.longitude_deg - origin.longitude_deg) * east,
    y_m: (at.latitude_deg - origin.latitude_deg) * north,
  }
}

/** A longitude, or a difference of two, the short way around: for a property on the date line. */
const around = (x_deg: number) => (x_deg >= -180 && x_deg <= 180 ? x_deg : ((((x_deg + 180) % 360) + 360) % 360) - 180)
