import type { Program } from '../core/schedule'
import { clockwork, type PlainProgram, type PlainRun } from '../standins'

const DAY_s = 86_400

/** A drawn program as the plain controller holds it: halves up, by whole numbers, since minutes are drawn in tenths. */
export const asPlain = (p: Program<string>): PlainProgram => ({
  starts: p.starts_s.flatMap((s) => (s === null ? [] : [new Date(s * 1000).toISOString().slice(11, 19)])),
  days: p.days,
  runs: p.runs.map((r) => ({
    station: r.station,
    seconds: () => Math.floor((Math.round(r.minutes * 10) * (p.seasonal_pct as number) * 6 + 50) / 100),
  })),
})

/**
 * Everything that starts of some dates set running on the plain controller. It shares no line
 * with what it is held against.
 */
export function secondBySecond(
  programs: readonly PlainProgram[],
  { from, days, ...rules }: { zone: string; mode: 'stack' | 'overlap'; delay: number; from: string; days: number },
): PlainRun[] {
  const begin = Date.parse(`${from}T00:00:00Z`) / 1000
  const dates = Array.from({ length: days }, (_, i) => new Date((begin + i * DAY_s) * 1000).toISOString().slice(0, 10))
  const plain = clockwork(programs, rules, (date) => dates.includes(date))
  const done: PlainRun[] = []
  // A day before and after, for zones far from UTC; then on until everything has run to its end.
  for (let second = begin - DAY_s; second <= begin + (days + 1) * DAY_s || !plain.isIdle(); second++)
    done.push(...plain.tick(second))
  return done
}
