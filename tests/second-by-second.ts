import type { Days } from '../core/schedule'

/** A program for the plain simulation: times of day as they are listed, seconds of each run. */
export interface PlainProgram {
  readonly starts: readonly string[]
  readonly days: Days | null
  readonly runs: readonly { readonly station: string; readonly seconds: number }[]
}
export interface PlainRun {
  readonly station: string
  readonly program: number
  readonly start: number
  readonly end: number
}

const formats = new Map<string, Intl.DateTimeFormat>()
/** What a wall clock shows at a second of UTC, by the platform’s own calendar. */
export function shown(zone: string, second: number): { date: string; time: string } {
  if (!formats.has(zone))
    formats.set(
      zone,
      new Intl.DateTimeFormat('en-CA', {
        timeZone: zone,
        hourCycle: 'h23',
        year: 'numeric',
        month: '2-digit',
        day: '2-digit',
        hour: '2-digit',
        minute: '2-digit',
        second: '2-digit',
      }),
    )
  const part = Object.fromEntries(
    formats
      .get(zone)!
      .formatToParts(second * 1000)
      .map((p) => [p.type, p.value]),
  )
  return { date: `${part.year}-${part.month}-${part.day}`, time: `${part.hour}:${part.minute}:${part.second}` }
}

function isDay(days: Days | null, date: string): boolean {
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
 * reckoned ahead. It shares no line with what it is held against.
 */
export function secondBySecond(
  programs: readonly PlainProgram[],
  {
    zone,
    mode,
    delay,
    from,
    days,
  }: { zone: string; mode: 'stack' | 'overlap'; delay: number; from: string; days: number },
): PlainRun[] {
  const begin = Date.parse(`${from}T00:00:00Z`) / 1000
  const dates = Array.from({ length: days }, (_, i) => new Date((begin + i * 86_400) * 1000).toISOString().slice(0, 10))
  /** Starts that are still to come today, by date; a clock that skips over one brings it on as it lands. */
  const pending = dates.flatMap((date) =>
    programs.flatMap((p, program) =>
      isDay(p.days, date) ? [...new Set(p.starts)].map((time) => ({ date, time, program })) : [],
    ),
  )
  const waiting: number[] = []
  const sequences: { program: number; at: number; left: number; gap: number; began: number }[] = []
  const done: PlainRun[] = []
  /** Brings on whatever can come on at this second; whether anything did. */
  function step(second: number): boolean {
    for (const s of [...sequences]) {
      const { runs } = programs[s.program]!
      while (s.at < runs.length && runs[s.at]!.seconds === 0) s.at++
      if (s.at >= runs.length && s.left === 0) {
        // Stacked, the gap behind the last run is the controller’s.
        if (mode === 'stack' && s.gap > 0) return false
        sequences.splice(sequences.indexOf(s), 1)
        return true
      }
      if (s.left === 0 && s.gap === 0) {
        s.left = runs[s.at]!.seconds
        s.began = second
        return true
      }
    }
    if (waiting.length === 0 || (mode === 'stack' && sequences.length > 0)) return false
    const program = waiting.shift()!
    sequences.push({ program, at: 0, left: 0, gap: 0, began: second })
    return true
  }
  // A day before and after, for zones far from UTC; then on until everything has run to its end.
  for (let second = begin - 86_400; ; second++) {
    // What is on goes down by a second, and is over at none.
    for (const s of sequences)
      if (s.left > 0) {
        s.left--
        if (s.left === 0) {
          const run = programs[s.program]!.runs[s.at]!
          done.push({ station: run.station, program: s.program, start: s.began, end: second })
          s.gap = delay
          s.at++
        }
      } else if (s.gap > 0) s.gap--
    // Starts are listed to the minute, and clocks change on one.
    if (second % 60 === 0) {
      const now = shown(zone, second)
      const due = pending
        .filter((p) => p.date < now.date || (p.date === now.date && p.time <= now.time))
        .sort((a, b) => a.program - b.program || (a.time < b.time ? -1 : 1))
      for (const p of due) {
        pending.splice(pending.indexOf(p), 1)
        waiting.push(p.program)
      }
    }
    while (step(second));

    if (second > begin + (days + 1) * 86_400 && pending.length === 0 && waiting.length === 0 && sequences.length === 0)
      return done
  }
}
