import type { WandReading } from './reading'

/**
 * What a wand picks up of a long current at unit strength: the horizontal part of its field goes as h/(x²+h²),
 * the vertical part as x/(x²+h²), x from the wand to the line and h from the coil down to it. A wand that leans
 * takes some of the other.
 * @param line_m the line’s place across the path
 * @param cover_m of soil over the line
 */
export function pickedUp(
  { across_m, height_m, tilt_deg, mode }: Pick<WandReading, 'across_m' | 'height_m' | 'tilt_deg' | 'mode'>,
  line_m: number,
  cover_m: number,
): number {
  const [x, h] = [line_m - across_m, cover_m + height_m]
  const squared = x * x + h * h
  const [horizontal, vertical] = [h / squared, x / squared]
  const tilt = (tilt_deg * Math.PI) / 180
  return mode === 'null'
    ? Math.abs(vertical * Math.cos(tilt) + horizontal * Math.sin(tilt))
    : Math.abs(horizontal * Math.cos(tilt) - vertical * Math.sin(tilt))
}
