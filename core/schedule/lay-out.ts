import { dateOf, dayNumber, runsOn, type Days } from './days'
import { highestPerCent, startsOf, type Program } from './program'
import { runSeconds } from './runs'
import type { StationOn } from './station'

const MINUTE_s = 60
const DAY_s = 86_400
/** Two lists of days that meet at all meet within these many: four years have every weekday on every date. */
const LOOK_days = 1461
/** A Monday; which one does not matter. */
const SOME_DAY = dayNumber('2024-01-01')

/**
 * How long a controller is busy with one start of a program, in the month with the most; delays behind each run too.
 */
export function busy_s({ runs, seasonal_pct }: Program<StationOn>, delay_s: number): number {
  const lengths = runs.map((r) => runSeconds(r.minutes, highestPerCent(seasonal_pct))).filter((s) => s > 0)
  return lengths.reduce((sum, s) => sum + s + delay_s, 0)
}

/** Whether there is a date on which both water. */
export function shareADate(a: Days | null, b: Days | null): boolean {
  if (a === null || b === null) return false
  for (const days of [a, b]) if (days.kind === 'weekdays' && days.on.length === 0) return false
  const from = Math.max(SOME_DAY, ...[a, b].map((d) => (d.kind === 'every' ? dayNumber(d.from) : 0)))
  return Array.from({ length: LOOK_days }, (_, i) => dateOf(from + i)).some((d) => runsOn(a, d) && runsOn(b, d))
}

/** A program and how many starts it is to have. */
export interface Wanted {
  readonly program: Program<StationOn>
  readonly passes: number
}

/** Programs with their starts, and when the last run ends, in seconds since midnight of the first start’s date. */
export interface LaidOut {
  readonly programs: readonly Program<StationOn>[]
  readonly ends_s: number
}

/**
 * Lays starts one behind the other, pass by pass, from a time of day on: none waits for another on any date. Programs
 * that never share a date may stand at one time, unless they run into another date.
 */
export function layOut(wanted: readonly Wanted[], from_s: number, delay_s: number): LaidOut {
  const meet = wanted.map((a, i) => wanted.map((b, j) => i === j || shareADate(a.program.days, b.program.days)))
  const beside = laidOut(wanted, from_s, delay_s, (i, j) => meet[i]![j]!)
  return beside.ends_s <= DAY_s ? beside : laidOut(wanted, from_s, delay_s, () => true)
}

function laidOut(
  wanted: readonly Wanted[],
  from_s: number,
  delay_s: number,
  meet: (one: number, other: number) => boolean,
): LaidOut {
  const starts = wanted.map((): number[] => [])
  const ends = wanted.map(() => from_s)
  for (let pass = 0; pass < Math.max(0, ...wanted.map((w) => w.passes)); pass++)
    wanted.forEach(({ program, passes }, i) => {
      if (pass >= passes) return
      const free_s = Math.max(from_s, ...ends.filter((_, j) => meet(i, j)))
      const at_s = Math.ceil(free_s / MINUTE_s) * MINUTE_s
      starts[i]!.push(at_s)
      ends[i] = at_s + busy_s(program, delay_s)
    })
  return {
    programs: wanted.map(({ program }, i) => ({ ...program, starts_s: starts[i]!.map((s) => s % DAY_s) })),
    ends_s: Math.max(from_s, ...ends.map((e) => e - delay_s)),
  }
}

/** Programs as they are, each to have as many starts as it has. */
export const asMany = (programs: readonly Program<StationOn>[]): Wanted[] =>
  programs.map((program) => ({ program, passes: startsOf(program).length }))

/**
 * A program whose runs are all within a cap, each start in as few passes as can be; each pass runs every station an
 * equal part, to a whole tenth of a minute.
 */
export function inPasses(program: Program<StationOn>, most_min: number): Wanted {
  const longest = Math.max(0, ...program.runs.map((r) => runSeconds(r.minutes, highestPerCent(program.seasonal_pct))))
  const passes = Math.max(1, Math.ceil(longest / (most_min * MINUTE_s)))
  const part = (minutes: number) => Math.floor((minutes / passes) * 10 + 1e-9) / 10
  return {
    program: { ...program, runs: program.runs.map((r) => ({ ...r, minutes: part(r.minutes) })) },
    passes: passes * startsOf(program).length,
  }
}
