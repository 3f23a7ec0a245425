import ical from 'ical-generator'

interface Noted {
  /** The same event has the same id each time it is written, so that a calendar takes it for one. */
  readonly id: string
  readonly summary: string
  readonly description: string
}
/** Something with a beginning and an end, in seconds of UTC, or on a day as a whole. */
export type CalendarEvent = Noted & ({ readonly from_s: number; readonly to_s: number } | { readonly day: string })

/** A calendar as iCalendar (RFC 5545), its times in UTC. */
export function writeCalendar(name: string, events: readonly CalendarEvent[], written: Date): string {
  const calendar = ical({ name, prodId: { company: 'Field Thread', product: 'Field Thread' }, timezone: null })
  for (const { id, summary, description, ...when } of events) {
    const time =
      'day' in when
        ? { start: new Date(`${when.day}T00:00:00Z`), allDay: true }
        : { start: new Date(when.from_s * 1000), end: new Date(when.to_s * 1000) }
    calendar.createEvent({ id, ...time, summary, description, stamp: written })
  }
  return `${calendar.toString()}\r\n`
}
