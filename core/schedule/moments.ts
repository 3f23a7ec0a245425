import type { Run } from './runs'

/** Stations that run at once, one of them just starting: from a second of UTC until anything changes. */
export interface Moment<S> {
  readonly at_s: number
  readonly starting: S
  /** Running already, in the order in which they came on. */
  readonly others: readonly S[]
}

/**
 * Every moment at which a station starts, with what runs besides; each set of stations once, at its first time. A run
 * that ends as another starts does not run beside it.
 * @param runs by their start
 */
export function momentsOf<S>(runs: readonly Run<S>[], keyOf: (station: S) => string): Moment<S>[] {
  const seen = new Set<string>()
  const moments: Moment<S>[] = []
  let open: Run<S>[] = []
  for (const run of runs) {
    open = open.filter((o) => o.end_s > run.start_s)
    const others = [...new Map(open.map((o) => [keyOf(o.station), o.station])).values()].filter(
      (s) => keyOf(s) !== keyOf(run.station),
    )
    const key = [keyOf(run.station), ...others.map(keyOf).sort()].join('|')
    if (!seen.has(key)) {
      seen.add(key)
      moments.push({ at_s: run.start_s, starting: run.station, others })
    }
    open.push(run)
  }
  return moments
}
