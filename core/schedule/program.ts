import type { Days } from './days'
import { runSeconds, type ProgramRuns } from './runs'

/** A program as somebody wrote it down; `S` tells a station. */
export interface Program<S> {
  readonly name: string
  /** Seconds of the day, as they are listed. */
  readonly starts_s: readonly number[]
  /** Null: it never runs. */
  readonly days: Days | null
  readonly seasonal_pct: number
  readonly runs: readonly { readonly station: S; readonly minutes: number }[]
}

/** A program with its per cent worked in. */
export const toRuns = <S>({ starts_s, days, seasonal_pct, runs }: Program<S>): ProgramRuns<S> => ({
  starts_s,
  days,
  runs: runs.map(({ station, minutes }) => ({ station, seconds: runSeconds(minutes, seasonal_pct) })),
})
