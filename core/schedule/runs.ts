import { instantOf, type WallClock } from './clock'
import { dateOf, dayNumber, runsOn, type CalendarDate, type Days } from './days'

/** A program as a controller runs it. The first station of `runs` comes first. */
export interface ProgramRuns<S> {
  readonly starts_s: readonly number[]
  readonly days: Days | null
  /** Seconds by the month of the start, January being 0. */
  readonly runs: readonly { readonly station: S; readonly secondsIn: (month: number) => number }[]
}
/**
 * How a controller runs several starts: one after the other, or each for itself; and what it waits between stations.
 */
export interface RunRules {
  readonly mode: 'stack' | 'overlap'
  readonly delay_s: number
}
/** One station running: from a second of UTC until another. */
export interface Run<S> {
  readonly station: S
  /** The program’s number in the list. */
  readonly program: number
  readonly start_s: number
  readonly end_s: number
  /** The start that brought it on, by its number in `starts`. */
  readonly by: number
}
/** A start as it is listed, and when its first station came on; null where the program has nothing to run. */
export interface Start {
  readonly program: number
  readonly date: CalendarDate
  /** The time of day as it is listed. */
  readonly second: number
  readonly listed_s: number
  readonly begins_s: number | null
}
export interface Ran<S> {
  readonly runs: readonly Run<S>[]
  readonly starts: readonly Start[]
}

/** A station’s seconds: its minutes by the seasonal per cent, to the nearest whole second, halves up. */
export const runSeconds = (minutes: number, seasonal_pct: number): number =>
  // Minutes and per cents come in decimals, whose product may lie a rounding below a half.
  Math.floor((minutes * seasonal_pct * 60) / 100 + 0.5 + 1e-9)

/**
 * Everything that the starts of so many local dates set running, to its end. The controller is idle before the first.
 * Stacked, a start that falls while the controller runs, or within the delay after a run, waits its turn: by time, then
 * by the order of programs. A run of no seconds is passed over and leaves no delay.
 */
export function runsOf<S>(
  programs: readonly ProgramRuns<S>[],
  { mode, delay_s }: RunRules,
  clock: WallClock,
  from: CalendarDate,
  days: number,
): Ran<S> {
  const first = dayNumber(from)
  const listed = Array.from({ length: days }, (_, i) => dateOf(first + i))
    .flatMap((date) =>
      programs.flatMap((p, program) =>
        p.days !== null && runsOn(p.days, date)
          ? [...new Set(p.starts_s)]
              .sort((a, b) => a - b)
              .map((second) => ({ program, date, second, listed_s: instantOf(clock, date, second) }))
          : [],
      ),
    )
    .sort((a, b) => a.listed_s - b.listed_s || a.program - b.program)
  const runs: Run<S>[] = []
  let free_s = -Infinity
  const starts = listed.map((start, by): Start => {
    let at_s = mode === 'stack' ? Math.max(start.listed_s, free_s) : start.listed_s
    let begins_s: number | null = null
    const month = Number(start.date.slice(5, 7)) - 1
    for (const { station, secondsIn } of programs[start.program]!.runs) {
      const seconds = secondsIn(month)
      if (seconds <= 0) continue
      begins_s ??= at_s
      runs.push({ station, program: start.program, start_s: at_s, end_s: at_s + seconds, by })
      at_s += seconds + delay_s
      free_s = at_s
    }
    return { ...start, begins_s }
  })
  return { runs: runs.sort((a, b) => a.start_s - b.start_s || a.by - b.by), starts }
}
