import { shownAt, type WallClock } from './clock'
import { dayNumber, type CalendarDate } from './days'
import type { Running } from './on-record'
import type { Run } from './runs'
import { stationKey, type StationOn } from './station'

/** A run as a band: from and to in seconds since midnight of the first date, by the clock on the wall. */
export interface Band {
  /** Its key. */
  readonly station: string
  readonly program: number
  readonly from_s: number
  readonly to_s: number
}
/** A start that waits: from when it is listed until its first station comes on. */
export type Wait = Band
/** What runs in some dates, by the clock on the wall. */
export interface Week {
  readonly bands: readonly Band[]
  readonly waits: readonly Wait[]
  /** Runs and seconds of each station in all, by its key. */
  readonly totals: Readonly<Record<string, { readonly runs: number; readonly seconds: number }>>
  /** The date on which most is run, and how long something runs then. */
  readonly busiest: { readonly date: CalendarDate; readonly seconds: number } | null
}

const DAY_s = 86_400

/** The runs of some dates as they lie in a calendar. */
export function weekOf({ ran, clock }: Running, from: CalendarDate): Week {
  const first = dayNumber(from)
  const wall = (at_s: number) => {
    const { date, second } = shownAt(clock, at_s)
    return (dayNumber(date) - first) * DAY_s + second
  }
  const band = (run: Run<StationOn>, from_s: number, to_s: number): Band => ({
    station: stationKey(run.station),
    program: run.program,
    from_s: wall(from_s),
    to_s: wall(to_s),
  })
  const totals: Record<string, { runs: number; seconds: number }> = {}
  for (const run of ran.runs) {
    const total = (totals[stationKey(run.station)] ??= { runs: 0, seconds: 0 })
    total.runs++
    total.seconds += run.end_s - run.start_s
  }
  return {
    bands: ran.runs.map((run) => band(run, run.start_s, run.end_s)),
    waits: ran.starts.flatMap(({ listed_s, begins_s }, by) => {
      const run = begins_s !== null && begins_s > listed_s && ran.runs.find((r) => r.by === by)
      return run ? [band(run, listed_s, begins_s)] : []
    }),
    totals,
    busiest: busiestDate(ran.runs, clock),
  }
}

function busiestDate(runs: readonly Run<StationOn>[], clock: WallClock): Week['busiest'] {
  const byDate = new Map<CalendarDate, number>()
  let until_s = -Infinity
  for (const run of runs) {
    const { date } = shownAt(clock, run.start_s)
    // What runs beside another is in use once.
    const own_s = Math.max(0, run.end_s - Math.max(run.start_s, until_s))
    until_s = Math.max(until_s, run.end_s)
    byDate.set(date, (byDate.get(date) ?? 0) + own_s)
  }
  return [...byDate].reduce<Week['busiest']>(
    (most, [date, seconds]) => (most === null || seconds > most.seconds ? { date, seconds } : most),
    null,
  )
}

/** The bands that hold a second, the one that came on last at the end. */
export const bandsAt = (bands: readonly Band[], at_s: number): Band[] =>
  bands.filter((b) => b.from_s <= at_s && at_s < b.to_s)
