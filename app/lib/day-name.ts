import type { CalendarDate } from '../../core/schedule'

/** A date as the reader's language has it: its weekday, and where there is room its day of the month. */
export const dayName = (date: CalendarDate, isLong: boolean): string =>
  new Date(`${date}T12:00:00Z`).toLocaleDateString(undefined, {
    weekday: 'short',
    timeZone: 'UTC',
    ...(isLong ? { day: 'numeric', month: 'short' } : {}),
  })
