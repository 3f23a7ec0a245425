import type { ProgramRecord } from '../site'

/** On which days a program runs. Monday is 0; odd and even are days of the month. */
export type Days = NonNullable<ProgramRecord['days']>

/** A date of the calendar, as `2027-05-01`. */
export type CalendarDate = string

const DAY_ms = 86_400_000
/** Days since 1970-01-01, of which a date is one whatever the clock does. */
export const dayNumber = (date: CalendarDate): number => Math.round(Date.parse(`${date}T00:00:00Z`) / DAY_ms)
/** The date of a day’s number. */
export const dateOf = (day: number): CalendarDate => new Date(day * DAY_ms).toISOString().slice(0, 10)
/** Monday is 0. */
export const weekdayOf = (day: number): number => (((day + 3) % 7) + 7) % 7

/** Whether a program runs on a date: by weekday, by odd or even day of the month, or every so many days from one. */
export function runsOn(days: Days, date: CalendarDate): boolean {
  const day = dayNumber(date)
  switch (days.kind) {
    case 'weekdays':
      return days.on.includes(weekdayOf(day))
    case 'odd':
      return Number(date.slice(8)) % 2 === 1
    case 'even':
      return Number(date.slice(8)) % 2 === 0
    case 'every': {
      const since = day - dayNumber(days.from)
      return since >= 0 && since % days.n === 0
    }
  }
}
