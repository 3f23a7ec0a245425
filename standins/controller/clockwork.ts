import type { ProgramRecord } from '../../core/site'
import { shown } from './wall'

/** A program as a controller holds it: times of day as they are listed, seconds of each run by the month, 0 to 11. */
export interface PlainProgram {
  readonly starts: readonly string[]
  readonly days: ProgramRecord['days']
  readonly runs: readonly { readonly station: string; readonly seconds: (month: number) => number }[]
}
/** A run that is over. */
export interface PlainRun {
  readonly station: string
  readonly program: number
  readonly start: number
  readonly end: number
}
export interface Clockwork {
  /** One second of UTC comes; those that follow it must be told one by one. Runs that end as it comes. */
  readonly tick: (second: number) => PlainRun[]
  /** Stations that are on in this second, in the order in which they came on. */
  readonly on: () => string[]
  readonly isIdle: () => boolean
}

const NEXT_DAY_ms = 86_400_000
const dayAfter = (date: string) => new Date(Date.parse(`${date}T00:00:00Z`) + NEXT_DAY_ms).toISOString().slice(0, 10)

function isDay(days: PlainProgram['days'], date: string): boolean {
  if (days === null) return false
  const at = new Date(`${date}T12:00:00Z`)
  if (days.kind === 'weekdays') return days.on.includes((at.getUTCDay() + 6) % 7)
  if (days.kind === 'odd') return at.getUTCDate() % 2 === 1
  if (days.kind === 'even') return at.getUTCDate() % 2 === 0
  for (let d = new Date(`${days.from}T12:00:00Z`), n = 0; d <= at; d.setUTCDate(d.getUTCDate() + 1), n++)
    if (d.getTime() === at.getTime()) return n % days.n === 0
  return false
}

/**
 * A controller as it lives: a clock that ticks once a second, a list of starts that wait, and what is on. Nothing is
 * reckoned ahead.
 * @param runsOn dates on which its programs start; all of them where nothing else is said
 */
export function clockwork(
  programs: readonly PlainProgram[],
  { zone, mode, delay }: { readonly zone: string; readonly mode: 'stack' | 'overlap'; readonly delay: number },
  runsOn: (date: string) => boolean = () => true,
): Clockwork {
  interface Sequence {
    readonly program: number
    readonly month: number
    at: number
    left: number
    gap: number
    began: number
  }
  interface Listed {
    readonly date: string
    readonly time: string
    readonly program: number
  }
  /** Starts that are still to come today; a clock that skips over one brings it on as it lands. */
  const pending: Listed[] = []
  const waiting: Listed[] = []
  const sequences: Sequence[] = []
  let listedTo: string | null = null

  function list(date: string, after: string): void {
    if (runsOn(date))
      programs.forEach((p, program) => {
        for (const time of isDay(p.days, date) ? new Set(p.starts) : [])
          if (time >= after) pending.push({ date, time, program })
      })
    listedTo = date
  }
  /** Brings on whatever can come on at this second; whether anything did. */
  function step(second: number): boolean {
    for (const s of [...sequences]) {
      const { runs } = programs[s.program]!
      while (s.at < runs.length && runs[s.at]!.seconds(s.month) === 0) s.at++
      if (s.at >= runs.length && s.left === 0) {
        // Stacked, the gap behind the last run is the controller's.
        if (mode === 'stack' && s.gap > 0) return false
        sequences.splice(sequences.indexOf(s), 1)
        return true
      }
      if (s.left === 0 && s.gap === 0) {
        s.left = runs[s.at]!.seconds(s.month)
        s.began = second
        return true
      }
    }
    if (waiting.length === 0 || (mode === 'stack' && sequences.length > 0)) return false
    const { program, date } = waiting.shift()!
    sequences.push({ program, month: Number(date.slice(5, 7)) - 1, at: 0, left: 0, gap: 0, began: second })
    return true
  }
  /** What is on goes down by a second, and is over at none. */
  function goDown(second: number): PlainRun[] {
    return sequences.flatMap((s): PlainRun[] => {
      if (s.left === 0) {
        s.gap = Math.max(0, s.gap - 1)
        return []
      }
      s.left--
      if (s.left > 0) return []
      const { station } = programs[s.program]!.runs[s.at]!
      s.gap = delay
      s.at++
      return [{ station, program: s.program, start: s.began, end: second }]
    })
  }
  return {
    tick: (second) => {
      const done = goDown(second)
      // Starts are listed to the minute, and clocks change on one.
      if (listedTo === null || second % 60 === 0) {
        const now = shown(zone, second)
        if (listedTo === null) list(now.date, now.time)
        while (listedTo! < now.date) list(dayAfter(listedTo!), '')
        const due = pending
          .filter((p) => p.date < now.date || (p.date === now.date && p.time <= now.time))
          .sort((a, b) => a.program - b.program || (a.time < b.time ? -1 : 1))
        for (const p of due) {
          pending.splice(pending.indexOf(p), 1)
          waiting.push(p)
        }
      }
      while (step(second));
      return done
    },
    on: () => sequences.filter((s) => s.left > 0).map((s) => programs[s.program]!.runs[s.at]!.station),
    isIdle: () => waiting.length === 0 && sequences.length === 0,
  }
}
