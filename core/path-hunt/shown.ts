import type { PathTest, PathValue } from '../record'

/**
 * What a test shows if a fault is there. A figure's spread is of its logarithm above `floor`, so that a volt and a
 * thousandth of one are told apart alike; `none` reads nothing, or more than an insulation meter tells.
 */
export type Shown =
  | { readonly kind: 'figure'; readonly x: number; readonly sd: number }
  | { readonly kind: 'none' }
  | { readonly kind: 'yes'; readonly p: number }
  | { readonly kind: 'number'; readonly number: number | null }

/** A reading that belongs to nothing that was thought of: a slip, a bad clip. */
const ODD = 0.01
/** Logarithms that a reading may have at all. */
const WIDE = 14

/** Where figures of a test begin to be told apart, in its unit. */
const floorOf = (test: PathTest): number => {
  switch (test.kind) {
    case 'path_volts':
      return 0.3
    case 'line_amps':
    case 'length_amps':
    case 'added_amps':
      return 0.002
    default:
      return 0.5
  }
}
/** Above this a reading in ohms is as good as none. */
const NONE_FROM_ohm: Partial<Record<PathTest['kind'], number>> = {
  legs_earth: 2e6,
  coil_earth: 2e6,
  legs_between: 400,
  coil_apart: 2000,
}

/** A figure with its spread, one standard deviation, in the test's unit. */
export const figure = (test: PathTest, mean: number, sd: number): Shown => {
  const floor = floorOf(test)
  return { kind: 'figure', x: Math.log(mean + floor), sd: sd / (mean + floor) }
}

/** What is shown, as it would be typed. */
export function meantBy(test: PathTest, shown: Shown): PathValue {
  switch (shown.kind) {
    case 'figure':
      return Math.max(0, Math.exp(shown.x) - floorOf(test))
    case 'yes':
      return shown.p > 0.5
    case 'number':
      return shown.number
    case 'none':
      return null
  }
}

/** How well a value fits what a fault shows: a density over logarithms, or a chance. */
export function fit(test: PathTest, shown: Shown, value: PathValue): number {
  if (shown.kind === 'yes') return value === true ? shown.p : 1 - shown.p
  if (shown.kind === 'number') return value === shown.number ? 1 - ODD : ODD / 50
  const none = typeof value !== 'number' || value > (NONE_FROM_ohm[test.kind] ?? Infinity)
  if (shown.kind === 'none') return none ? 1 - ODD : ODD / WIDE
  if (none) return ODD
  const off = (Math.log(value + floorOf(test)) - shown.x) / shown.sd
  return ((1 - ODD) * Math.exp(-0.5 * off * off)) / (shown.sd * Math.sqrt(2 * Math.PI)) + ODD / WIDE
}
