import type { Days } from './days'
import { runSeconds, type ProgramRuns } from './runs'

/** Per cent of the minutes that are listed: one figure all year, or one for each month from January. */
export type Seasonal = number | readonly number[]

/** The per cent of a month, January being 0. */
export const perCentIn = (seasonal: Seasonal, month: number): number =>
  typeof seasonal === 'number' ? seasonal : seasonal[month]!
/** The most that it is in any month. */
export const highestPerCent = (seasonal: Seasonal): number =>
  typeof seasonal === 'number' ? seasonal : Math.max(...seasonal)

/** A program as somebody wrote it down; `S` tells a station. */
export interface Program<S> {
  readonly name: string
  /** Seconds of the day in their places on the controller; null is one left blank. */
  readonly starts_s: readonly (number | null)[]
  /** Null: it never runs. */
  readonly days: Days | null
  readonly seasonal_pct: Seasonal
  readonly runs: readonly { readonly station: S; readonly minutes: number }[]
}

/** The times at which a program starts, each once, the earliest first. */
export const startsOf = ({ starts_s }: Pick<Program<unknown>, 'starts_s'>): number[] =>
  [...new Set(starts_s)].filter((s) => s !== null).sort((a, b) => a - b)

/** A program with its per cent worked in. */
export const toRuns = <S>({ starts_s, days, seasonal_pct, runs }: Program<S>): ProgramRuns<S> => ({
  starts_s: startsOf({ starts_s }),
  days,
  runs: runs.map(({ station, minutes }) => ({
    station,
    secondsIn: (month) => runSeconds(minutes, perCentIn(seasonal_pct, month)),
  })),
})
