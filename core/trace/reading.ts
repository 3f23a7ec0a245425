/** How a wand listens: silent above the line, or loudest there. */
export type Mode = 'null' | 'peak'

/** One reading of a wand: where it was held and how, and what it showed. */
export interface WandReading {
  /** Metres along the path. */
  readonly along_m: number
  /** Metres across it, left negative. */
  readonly across_m: number
  /** The wand’s coil above the ground. */
  readonly height_m: number
  /** How far the wand’s top leans towards positive `across_m`. */
  readonly tilt_deg: number
  readonly mode: Mode
  readonly gain: number
  readonly reading: number
}

/** What is shown is never taken for less than this part of the strongest: a silent wand shows nothing, not no field. */
const SILENT_ratio = 0.01

/** The logarithms of what was shown, gains divided out; null where nothing was shown at all. */
export function logShown(readings: readonly Pick<WandReading, 'reading' | 'gain'>[]): number[] | null {
  const shown = readings.map((r) => r.reading / r.gain)
  const strongest = Math.max(...shown)
  return strongest > 0 ? shown.map((s) => Math.log(Math.max(s, SILENT_ratio * strongest))) : null
}

/** A figure with the interval that holds it nine times in ten. */
export interface Span90 {
  readonly low: number
  readonly mid: number
  readonly high: number
}

/** What a reading is off by, as a part of it: a wand in a hand, one standard deviation. */
export const WAND_NOISE_ratio = 0.08

/** A span from values on a grid with weights that need not add up to one; half of a value’s weight lies before it. */
export function spanOf(values: readonly { readonly at: number; readonly weight: number }[]): Span90 {
  const byPlace = new Map<number, number>()
  for (const { at, weight } of values) byPlace.set(at, (byPlace.get(at) ?? 0) + weight)
  const places = [...byPlace].sort(([a], [b]) => a - b)
  const total = places.reduce((sum, [, weight]) => sum + weight, 0)
  let sum = 0
  const reached = places.map(([at, weight]) => {
    sum += weight
    return { at, part: (sum - weight / 2) / total }
  })
  const quantile = (part: number) => {
    const i = reached.findIndex((r) => r.part >= part)
    if (i <= 0) return reached.at(i)!.at
    const [before, after] = [reached[i - 1]!, reached[i]!]
    return before.at + ((after.at - before.at) * (part - before.part)) / (after.part - before.part || 1)
  }
  return { low: quantile(0.05), mid: quantile(0.5), high: quantile(0.95) }
}
