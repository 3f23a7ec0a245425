/** A measured excess over the record at a moment, with its standard error. */
export interface Excess {
  readonly at_days: number
  readonly excess_ohm: number
  readonly sigma_ohm: number
}

/**
 * A thread's creep: ohms gained per year, and when it will have gained `limit_ohm`. Days count from the same moment as
 * the points' own; null for never within the horizon.
 */
export interface Drift {
  readonly ohmPerYear: number
  readonly sigma_ohmPerYear: number
  readonly reaches_days: number
  readonly earliest_days: number
  readonly latest_days: number | null
}

const DAYS_PER_YEAR = 365.25
/** A slope counts as real beyond this many of its standard errors: one in forty steady threads shows one by chance. */
const SURE_SIGMAS = 2
/** Two-sided 80 %: nine times in ten it is not before the earliest, nine in ten not after the latest. */
const QUANTILE_90 = 1.2816
/** Beyond this nobody plans. */
const HORIZON_days = 20 * DAYS_PER_YEAR

/**
 * Weighted least squares of the excess over time. The date comes with the band of the fitted line: it is reached at the
 * earliest where the line's upper 90 % edge meets the limit, at the latest where its lower edge does (Fieller's
 * interval).
 * @returns null where there are fewer than two moments, or no rise that can be told from the meter's error
 */
export function driftOf(points: readonly Excess[], limit_ohm: number): Drift | null {
  const weights = points.map((p) => 1 / p.sigma_ohm ** 2)
  const total = sum(weights)
  const mean_t = sum(points.map((p, i) => weights[i]! * p.at_days)) / total
  const mean_y = sum(points.map((p, i) => weights[i]! * p.excess_ohm)) / total
  const spread = sum(points.map((p, i) => weights[i]! * (p.at_days - mean_t) ** 2))
  if (points.length < 2 || !(spread > 0)) return null
  const slope = sum(points.map((p, i) => weights[i]! * (p.at_days - mean_t) * (p.excess_ohm - mean_y))) / spread
  const sigma = Math.sqrt(1 / spread)
  if (slope < SURE_SIGMAS * sigma) return null
  const last = Math.max(...points.map((p) => p.at_days))
  const edge = (t: number, q: number) =>
    mean_y + slope * (t - mean_t) + q * Math.sqrt(1 / total + (t - mean_t) ** 2 / spread)
  const reached = (q: number) => firstAbove((t) => edge(t, q) - limit_ohm, last, last + HORIZON_days)
  const [middle, early] = [reached(0), reached(QUANTILE_90)]
  if (middle === null || early === null) return null
  return {
    ohmPerYear: slope * DAYS_PER_YEAR,
    sigma_ohmPerYear: sigma * DAYS_PER_YEAR,
    reaches_days: middle,
    earliest_days: early,
    latest_days: reached(-QUANTILE_90),
  }
}

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)

/** The first moment at which a function is above zero, by a day; null where it is not by `to`. The edges rise once. */
function firstAbove(f: (t: number) => number, from: number, to: number): number | null {
  if (f(from) >= 0) return from
  if (f(to) < 0) return null
  let [low, high] = [from, to]
  while (high - low > 1) {
    const middle = (low + high) / 2
    if (f(middle) < 0) low = middle
    else high = middle
  }
  return high
}
