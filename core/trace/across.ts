import { pickedUp } from './field'
import { logShown, spanOf, WAND_NOISE_ratio, type Span90, type WandReading } from './reading'

/** Where a line lies under a section of readings over it. */
export interface Crossing {
  readonly across_m: Span90
  readonly cover_m: Span90
}

/** Cover that is looked for, m: a line nearly in the grass, and one below any spade. */
const [SHALLOWEST_m, DEEPEST_m] = [0.03, 2]
/** Steps of a grid, coarse and then fine, and of the floor below which nothing is shown. */
const [PLACES, COVERS, FLOORS] = [33, 27, 6]
const LOWEST_FLOOR_ratio = 0.02
/** What is less likely than the best by this much, as a logarithm, counts for nothing. */
const NEGLIGIBLE = 12

interface Grid {
  readonly from: number
  readonly to: number
}
const stepsOf = ({ from, to }: Grid, count: number) =>
  Array.from({ length: count }, (_, i) => from + ((to - from) * (i + 0.5)) / count)

/**
 * The line’s place and cover from readings across it: every place and cover is weighed by how well it tells what was
 * read (independent factors of 8 %, a floor below which nothing is shown), the current’s strength summed out. Null of
 * fewer than three readings, and where they show no line: nothing at all, or one level everywhere.
 */
export function crossingOf(readings: readonly WandReading[]): Crossing | null {
  const shown = logShown(readings)
  if (readings.length < 3 || !shown) return null
  const weighed = weighedClosely(readings, shown)
  const best = bestOf(weighed)
  if (best - flatLog(shown) < CLEARER) return null
  const weights = weighed.map((w) => ({ ...w, weight: Math.exp(w.log - best) }))
  return {
    across_m: spanOf(weights.map(({ line_m, weight }) => ({ at: line_m, weight }))),
    // Steps are even in the logarithm; every cover is as likely beforehand as any other.
    cover_m: spanOf(weights.map(({ cover_m, weight }) => ({ at: cover_m, weight: weight * cover_m }))),
  }
}

const bestOf = (weighed: readonly Weighed[]) => Math.max(...weighed.map((w) => w.log))

/** Every place and cover with how well it tells what was read, on a grid that has come in on what weighs anything. */
function weighedClosely(readings: readonly WandReading[], shown: readonly number[]): Weighed[] {
  const across = readings.map((r) => r.across_m)
  const wide = Math.max(Math.max(...across) - Math.min(...across), 0.2)
  let places: Grid = { from: Math.min(...across) - wide / 4, to: Math.max(...across) + wide / 4 }
  let covers: Grid = { from: Math.log(SHALLOWEST_m), to: Math.log(DEEPEST_m) }
  let weighed: Weighed[] = []
  // Each time only where the time before left weight, so that a sharp peak has steps enough.
  for (const broad of [4, 2, 1]) {
    weighed = weigh(readings, shown, stepsOf(places, PLACES), stepsOf(covers, COVERS), broad * WAND_NOISE_ratio)
    const best = bestOf(weighed)
    const left = weighed.filter((w) => w.log > best - NEGLIGIBLE)
    const around = (values: readonly number[], { from, to }: Grid, count: number): Grid => {
      const step = (to - from) / count
      return { from: Math.min(...values) - step, to: Math.max(...values) + step }
    }
    places = around(
      left.map((w) => w.line_m),
      places,
      PLACES,
    )
    covers = around(
      left.map((w) => Math.log(w.cover_m)),
      covers,
      COVERS,
    )
  }
  return weighed
}

/**
 * Whether what was read speaks for the other mode than the wand is said to be in: silence above the line where it
 * should be loudest, or the other way round. Of fewer than five readings nothing is said.
 */
export function soundsOtherwise(readings: readonly WandReading[]): boolean {
  const shown = logShown(readings)
  if (readings.length < 5 || !shown) return false
  const turned = readings.map((r) => ({ ...r, mode: r.mode === 'peak' ? ('null' as const) : ('peak' as const) }))
  return bestOf(weighedClosely(turned, shown)) - bestOf(weighedClosely(readings, shown)) > CLEARER
}

/** A line has to tell what was read so much better than nothing but a level does, as a logarithm. */
const CLEARER = 6

/** How likely what was shown is where there is no line at all: one level everywhere, and the wand’s noise. */
function flatLog(shown: readonly number[]): number {
  const level = shown.reduce((sum, s) => sum + s, 0) / shown.length
  return shown.reduce((log, s) => log - ((Math.exp(s - level) - 1) / WAND_NOISE_ratio) ** 2 / 2 - level, 0)
}

/**
 * To which side a line lies that readings only come near to: the end of a section is the loudest, or the most silent.
 */
export function furtherOn(readings: readonly WandReading[]): 'left' | 'right' | null {
  const sorted = [...readings].sort((a, b) => a.across_m - b.across_m)
  const told = sorted.map((r) => ((r.mode === 'peak' ? 1 : -1) * r.reading) / r.gain)
  const most = Math.max(...told)
  return told.length < 3 ? null : told[0] === most ? 'left' : told.at(-1) === most ? 'right' : null
}

interface Weighed {
  readonly line_m: number
  readonly cover_m: number
  readonly log: number
}

/**
 * @param shown as logarithms
 * @param noise_ratio a larger one than the wand’s makes a peak broad enough for a coarse grid
 */
function weigh(
  readings: readonly WandReading[],
  shown: readonly number[],
  places: readonly number[],
  covers: readonly number[],
  noise_ratio: number,
): Weighed[] {
  const [weakest, strongest] = [Math.min(...shown), Math.max(...shown)]
  // Nothing is shown below the floor, so it lies about the weakest reading or under it.
  const floors = stepsOf({ from: strongest + Math.log(LOWEST_FLOOR_ratio), to: weakest + Math.log(1.25) }, FLOORS)
  return covers.flatMap((logCover) =>
    places.map((line_m) => {
      const cover_m = Math.exp(logCover)
      const picked = readings.map((r) => Math.log(Math.max(1e-9, pickedUp(r, line_m, cover_m))))
      const logs = floors.map((floor) => likelihood(shown, picked, floor, noise_ratio))
      const best = Math.max(...logs)
      return { line_m, cover_m, log: best + Math.log(logs.reduce((sum, l) => sum + Math.exp(l - best), 0)) }
    }),
  )
}

/** A reading so far above the floor tells of the line. */
const ABOVE = Math.log(1.3)
const MOST_TURNS = 6

/**
 * The logarithm of how likely what was shown is, but for a constant; the current’s strength, which is as likely at one
 * power of ten as at any other, is summed out about its best (Laplace).
 * @param shown,picked,floor logarithms
 */
function likelihood(shown: readonly number[], picked: readonly number[], floor: number, noise_ratio: number): number {
  let [strength, live] = [0, 0]
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    let [sum, count] = [0, 0]
    for (let i = 0; i < shown.length; i++) {
      // Readings that the floor explains say nothing of the strength.
      if (turn === 0 ? shown[i]! <= floor + ABOVE : strength + picked[i]! <= floor) continue
      sum += shown[i]! - picked[i]!
      count++
    }
    const before = strength
    live = count
    if (count === 0) break
    strength = sum / count
    if (turn > 0 && Math.abs(strength - before) < 1e-6) break
  }
  let log = -Math.log(Math.max(1, live)) / 2
  for (let i = 0; i < shown.length; i++) {
    const meant = Math.max(strength + picked[i]!, floor)
    const off = (Math.exp(shown[i]! - meant) - 1) / noise_ratio
    log -= (off * off) / 2 + meant
  }
  return log
}
