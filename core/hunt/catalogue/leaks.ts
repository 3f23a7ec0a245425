import type { Spot } from '../../circuit'
import { isToEarth, type FieldTest, type Meter, type ReadingValue } from '../../record'
import { logCells, none, type Cell } from './cells'

/** A leak to earth is about as likely in every factor of two between these. */
const [LEAST_ohm, MOST_ohm] = [100, 100_000]
/** Cells of all that; where a reading shows a leak a cell is so many of the meter's deviations wide, or so wide. */
const [CELLS, WIDE, NARROWEST] = [24, 1.5, 0.005]
/** From a terminal to a leak lie so many ohms at most, and a leak beside it takes so much of what is read. */
const [WAY_ohm, BESIDE] = [150, 0.1]

/** Sizes of leaks, as pieces of the logarithm of their ohms. */
export type LeakSizes = readonly { readonly from: number; readonly to: number }[]

/** Sizes even in the logarithm: those that are told where no reading shows a leak. */
export const UNSEEN_LEAKS: LeakSizes = pieces(LEAST_ohm, MOST_ohm, Math.log(MOST_ohm / LEAST_ohm) / CELLS)

/**
 * Sizes of leaks that tell apart what the meter does, where a reading to earth shows one. Every thread's reading then
 * follows from the leak by itself: nothing that several have in common is left to a figure. `before` where that does.
 */
export function leakSizesFor(
  readings: readonly { readonly test: FieldTest; readonly value: ReadingValue }[],
  meter: Meter,
  before: LeakSizes,
): LeakSizes {
  const shown = readings.flatMap(({ test, value }) =>
    isToEarth(test) && value.kind === 'ohm' && value.ohm > LEAST_ohm && value.ohm < MOST_ohm ? [value.ohm] : [],
  )
  const step = Math.max(NARROWEST, (WIDE * meter.accuracy_ratio) / 2)
  const isFine = (ohm: number) => {
    const inside = Math.min(MOST_ohm, Math.max(LEAST_ohm, ohm))
    return before.some(({ from, to }) => from <= inside && inside <= to && Math.log(to / from) < 1.01 * step)
  }
  if (shown.every((ohm) => isFine(ohm * (1 + BESIDE / 2)) && isFine((ohm * ohm) / (ohm + WAY_ohm)))) return before
  const seen = merged(
    shown.map((ohm) => ({
      from: Math.max(LEAST_ohm, (ohm - WAY_ohm) * (1 - BESIDE)),
      to: Math.min(MOST_ohm, ohm * (1 + BESIDE)),
    })),
  )
  const coarse = Math.log(MOST_ohm / LEAST_ohm) / CELLS
  const found: { from: number; to: number }[] = []
  let at = LEAST_ohm
  for (const { from, to } of seen) {
    found.push(...pieces(at, from, coarse), ...pieces(from, to, step))
    at = to
  }
  return [...found, ...pieces(at, MOST_ohm, coarse)]
}

/** Pieces of at most `step` in the logarithm. */
function pieces(from: number, to: number, step: number): LeakSizes {
  const whole = Math.log(to / from)
  const n = Math.ceil(whole / step - 1e-9)
  return Array.from({ length: Math.max(0, n) }, (_, i) => ({
    from: from * Math.exp((whole * i) / n),
    to: from * Math.exp((whole * (i + 1)) / n),
  }))
}

/** Stretches that lie over each other, as one. */
function merged(stretches: LeakSizes): LeakSizes {
  const found: { from: number; to: number }[] = []
  for (const { from, to } of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = found.at(-1)
    if (last && from <= last.to) last.to = Math.max(last.to, to)
    else found.push({ from, to })
  }
  return found
}

/** Cells of a leak at a spot. */
export const leakCells = (sizes: LeakSizes, spot: Spot, along?: number): Cell[] =>
  sizes.map(({ from, to }): Cell => {
    const [{ ohm, sd }] = logCells({ from, to, cells: 1 }) as [{ ohm: number; sd: number }]
    return {
      mods: none,
      ohm,
      share: Math.log(to / from),
      leak: { spot, sd_ohm: sd },
      ...(along !== undefined && { along }),
    }
  })
