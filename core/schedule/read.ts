import { refusal, type Refusal } from '../refusal'
import type { Days } from './days'

const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'] as const
/** A start as it is typed: `6:00`, `18:30`, `06.15`, with seconds where somebody has them. */
const START = /^(\d{1,2})[:.](\d{2})(?:[:.](\d{2}))?$/
const DATE = /^\d{4}-\d{2}-\d{2}$/

/** Starts of a program, parted by blanks; null where one is no time of day. */
export function readStarts(text: string): number[] | null {
  const starts = text
    .split(/[\s,;]+/)
    .filter((t) => t !== '')
    .map((t) => {
      const m = START.exec(t)
      const [h, min, s] = m ? [Number(m[1]), Number(m[2]), Number(m[3] ?? 0)] : [99, 0, 0]
      return h < 24 && min < 60 && s < 60 ? h * 3600 + min * 60 + s : null
    })
  return starts.some((s) => s === null) ? null : (starts as number[])
}

/**
 * Days as they are typed: `Mon Wed`, `odd`, `even`, `every 3 from 2027-05-01`; nothing is never.
 * @returns undefined where it is none of these
 */
export function readDays(text: string): Days | null | undefined {
  const plain = text.trim().toLowerCase()
  if (plain === '') return null
  if (plain === 'odd' || plain === 'even') return { kind: plain }
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
export function startsText(starts_s: readonly number[]): string {
  const two = (n: number) => String(n).padStart(2, '0')
  return starts_s
    .map((s) => `${two(Math.floor(s / 3600))}:${two(Math.floor(s / 60) % 60)}${s % 60 ? `:${two(s % 60)}` : ''}`)
    .join(' ')
}

/** A line of a list of programs, its cells by the names of their columns. */
export type ProgramCells = Readonly<
  Record<'program' | 'starts' | 'days' | 'seasonal_pct' | 'station' | 'minutes', string>
>
export interface ReadProgram {
  readonly name: string
  readonly starts_s: readonly number[]
  readonly days: Days | null
  readonly seasonal_pct: number
  readonly runs: readonly { readonly station: string; readonly minutes: number; readonly line: number }[]
}

/** A figure in decimals with point or comma, within bounds; null otherwise. */
function figure(text: string, low: number, high: number): number | null {
  const plain = text.trim().replace(',', '.')
  const value = /^\d+(\.\d+)?$/.test(plain) ? Number(plain) : NaN
  return value >= low && value <= high ? value : null
}
/** A day has so many minutes; a run may not be longer than a week. */
const MOST_min = 7 * 1440
const MOST_pct = 1000

/**
 * Programs from the lines of a list: order of lines is the order of running, and what holds for a whole program stands on
 * its first line. Cells of later lines may repeat it or be empty.
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
      const pct = cells.seasonal_pct.trim() === '' ? 100 : figure(cells.seasonal_pct, 0, MOST_pct)
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
