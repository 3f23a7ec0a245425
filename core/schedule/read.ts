import { refusal, type Refusal } from '../refusal'
import type { Days } from './days'
import type { Seasonal } from './program'

const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const
/** A start as it is typed: `6:00`, `18:30`, `06.15`, `600`, with seconds where somebody has them. */
const START = /^(\d{1,2})[:.]?(\d{2})(?:[:.](\d{2}))?$/
/** A start left blank on purpose. */
const BLANK = /^[-–—]+(:[-–—]+)?$/
/** A run may not be longer than a week. */
export const MOST_min = 7 * 1440
const MOST_pct = 1000
const DATE = /^\d{4}-\d{2}-\d{2}$/

/** Starts of a program in their places, parted by blanks, `-` for one left blank; null where one is no time of day. */
export function readStarts(text: string): (number | null)[] | null {
  const starts = text
    .split(/[\s,;]+/)
    .filter((t) => t !== '')
    .map((t) => {
      if (BLANK.test(t)) return null
      const m = START.exec(t)
      const [h, min, s] = m ? [Number(m[1]), Number(m[2]), Number(m[3] ?? 0)] : [99, 0, 0]
      return h < 24 && min < 60 && s < 60 ? h * 3600 + min * 60 + s : undefined
    })
  return starts.includes(undefined) ? null : (starts as (number | null)[])
}

/**
 * Days as they are typed: `Mon Wed`, `odd`, `even`, `every 3 from 2027-05-01`; nothing is never.
 * @returns undefined where it is none of these
 */
export function readDays(text: string): Days | null | undefined {
  const plain = text.trim().toLowerCase()
  if (plain === '') return null
  if (plain === 'odd' || plain === 'even') return { kind: plain }
  if (plain === 'daily') return { kind: 'weekdays', on: [0, 1, 2, 3, 4, 5, 6] }
  const every = /^every\s+(\d{1,3})\s+from\s+(\S+)$/.exec(plain)
  if (every) {
    const [n, from] = [Number(every[1]), every[2]!]
    const isDate = DATE.test(from) && new Date(`${from}T00:00:00Z`).toJSON()?.slice(0, 10) === from
    return n >= 1 && isDate ? { kind: 'every', n, from } : undefined
  }
  const names = plain.split(/[\s,;]+/)
  const on = names.map((name) => WEEKDAYS.findIndex((d) => name.startsWith(d)))
  return on.includes(-1) ? undefined : { kind: 'weekdays', on: [...new Set(on)].sort((a, b) => a - b) }
}

/** Days as they are written: what `readDays` takes back. */
export function daysText(days: Days | null): string {
  if (days === null) return ''
  switch (days.kind) {
    case 'weekdays':
      return days.on.map((d) => WEEKDAYS[d]!.replace(/^./, (c) => c.toUpperCase())).join(' ')
    case 'every':
      return `every ${days.n} from ${days.from}`
    default:
      return days.kind
  }
}
const WEEK = 7
/** Days in the fewest letters: as `daysText` has them, every day of the week as `daily`. */
export const daysTyped = (days: Days | null): string =>
  days?.kind === 'weekdays' && days.on.length === WEEK ? 'daily' : daysText(days)

/** A time of day as `06:00`, with seconds where it has some. */
export function timeText(second: number): string {
  const two = (n: number) => String(n).padStart(2, '0')
  const odd_s = second % 60
  return `${two(Math.floor(second / 3600))}:${two(Math.floor(second / 60) % 60)}${odd_s ? `:${two(odd_s)}` : ''}`
}
/** Starts as they are written: what `readStarts` takes back. */
export const startsText = (starts_s: readonly (number | null)[]): string =>
  starts_s.map((s) => (s === null ? '-' : timeText(s))).join(' ')
/** A seasonal per cent as it is typed: one figure, or twelve from January; null where it is neither. */
export function readSeasonal(text: string): Seasonal | null {
  const figures = text
    .split(/[\s;]+/)
    .filter((t) => t !== '')
    .map((t) => figure(t.replace(/%$/, ''), 0, MOST_pct))
  if (figures.includes(null)) return null
  const known = figures as number[]
  return known.length === 0 ? 100 : known.length === 1 ? known[0]! : known.length === 12 ? known : null
}
/** As it is written: what `readSeasonal` takes back. */
export const seasonalText = (seasonal: Seasonal): string =>
  typeof seasonal === 'number' ? String(seasonal) : seasonal.join(' ')

/** A line of a list of programs, its cells by the names of their columns. */
export type ProgramCells = Readonly<
  Record<'program' | 'starts' | 'days' | 'seasonal_pct' | 'station' | 'minutes', string>
>
export interface ReadProgram {
  readonly name: string
  /** In their places; null is one left blank. */
  readonly starts_s: readonly (number | null)[]
  readonly days: Days | null
  readonly seasonal_pct: Seasonal
  readonly runs: readonly { readonly station: string; readonly minutes: number; readonly line: number }[]
}

/** A figure in decimals with point or comma, within bounds; null otherwise. */
export function figure(text: string, low: number, high: number): number | null {
  const plain = text.trim().replace(',', '.')
  const value = /^\d+(\.\d+)?$/.test(plain) ? Number(plain) : NaN
  return value >= low && value <= high ? value : null
}
/**
 * Programs from the lines of a list: order of lines is the order of running, and what holds for a whole program stands
 * on its first line. Cells of later lines may repeat it or be empty.
 */
export function readPrograms(lines: readonly { readonly line: number; readonly cells: ProgramCells }[]): {
  programs: ReadProgram[]
  wrong: Refusal[]
} {
  const wrong: Refusal[] = []
  const programs = new Map<string, ReadProgram & { runs: { station: string; minutes: number; line: number }[] }>()
  for (const { line, cells } of lines) {
    const at = [`line ${line}`]
    const name = cells.program.trim()
    if (name === '' || name.length > 20) {
      wrong.push(refusal('no_program_name', [...at, 'program']))
      continue
    }
    if (!programs.has(name)) {
      const [starts_s, days] = [readStarts(cells.starts), readDays(cells.days)]
      const pct = readSeasonal(cells.seasonal_pct)
      if (starts_s === null) wrong.push(refusal('no_start_time', [...at, 'starts'], { text: cells.starts.trim() }))
      if (days === undefined) wrong.push(refusal('no_such_days', [...at, 'days'], { text: cells.days.trim() }))
      if (pct === null) wrong.push(refusal('not_within', [...at, 'seasonal_pct'], { low: 0, high: MOST_pct }))
      programs.set(name, { name, starts_s: starts_s ?? [], days: days ?? null, seasonal_pct: pct ?? 100, runs: [] })
    }
    const [station, minutes] = [cells.station.trim(), figure(cells.minutes, 0, MOST_min)]
    // A program without a station yet is one all the same.
    if (station === '' && cells.minutes.trim() === '') continue
    if (station === '') wrong.push(refusal('no_station', [...at, 'station']))
    if (minutes === null) wrong.push(refusal('not_within', [...at, 'minutes'], { low: 0, high: MOST_min }))
    else if (station !== '') programs.get(name)!.runs.push({ station, minutes, line })
  }
  return { programs: [...programs.values()], wrong }
}
