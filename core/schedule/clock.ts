import { IANAZone } from 'luxon'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import { dateOf, dayNumber, type CalendarDate } from './days'

/** A clock on a wall somewhere: by how many seconds it is ahead of UTC at an instant, both in whole seconds. */
export interface WallClock {
  readonly name: string
  readonly ahead_s: (instant_s: number) => number
}

const DAY_s = 86_400

/** The clock of a zone by its name in the time-zone database, such as `UTC` or `Etc/GMT+5`. */
export function wallClock(name: string): Outcome<WallClock> {
  if (!IANAZone.isValidZone(name)) return refused(refusal('no_such_zone', ['--zone'], { name }))
  const zone = IANAZone.create(name)
  return accepted({ name, ahead_s: byDays((instant_s) => Math.round(zone.offset(instant_s * 1000) * 60)) })
}

/**
 * The same, asked once for a day of UTC at whose ends a clock is as far ahead: it changes once in a day at most, and
 * the database is slow to ask.
 */
function byDays(ahead_s: (instant_s: number) => number): (instant_s: number) => number {
  const beginsAhead_s = new Map<number, number>()
  const beginOf = (day: number): number => {
    const known = beginsAhead_s.get(day)
    if (known !== undefined) return known
    const asked = ahead_s(day * DAY_s)
    beginsAhead_s.set(day, asked)
    return asked
  }
  return (instant_s) => {
    const day = Math.floor(instant_s / DAY_s)
    const begin_s = beginOf(day)
    return begin_s === beginOf(day + 1) ? begin_s : ahead_s(instant_s)
  }
}

/**
 * The instant, in seconds of UTC, at which a wall clock shows a time of a date. A time that a clock put forward leaves
 * out is the end of the gap; one that comes twice is its first coming.
 */
export function instantOf({ ahead_s }: WallClock, date: CalendarDate, second: number): number {
  const shown = dayNumber(date) * DAY_s + second
  // A clock changes once in a day at most, so that what it is ahead a day before and after are all it can be.
  const [before, after] = [ahead_s(shown - DAY_s), ahead_s(shown + DAY_s)]
  const comings = [shown - before, shown - after].filter((t) => ahead_s(t) === shown - t)
  if (comings.length > 0) return Math.min(...comings)
  let [low, high] = [shown - Math.max(before, after), shown - Math.min(before, after)]
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (ahead_s(middle) === before) low = middle
    else high = middle
  }
  return high
}

/** What a wall clock shows at an instant: the date, and the second of its day. */
export function shownAt({ ahead_s }: WallClock, instant_s: number): { date: CalendarDate; second: number } {
  const shown = instant_s + ahead_s(instant_s)
  const day = Math.floor(shown / DAY_s)
  return { date: dateOf(day), second: shown - day * DAY_s }
}

/** As `2027-05-01T06:00:00`, without the zone. */
export function localText(clock: WallClock, instant_s: number): string {
  const { date, second } = shownAt(clock, instant_s)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${date}T${two(Math.floor(second / 3600))}:${two(Math.floor(second / 60) % 60)}:${two(second % 60)}`
}
