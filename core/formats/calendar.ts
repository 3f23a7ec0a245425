import ical from 'ical-generator'

/** Something with a beginning and an end, in seconds of UTC. */
export interface CalendarEvent {
  /** The same event has the same id each time it is written, so that a calendar takes it for one. */
  readonly id: string
  readonly from_s: number
  readonly to_s: number
  readonly summary: string
  readonly description: string
}

/** A calendar as iCalendar (RFC 5545), its times in UTC. */
export function writeCalendar(name: string, events: readonly CalendarEvent[], written: Date): string {
  const calendar = ical({ name, prodId: { company: 'Field Thread', product: 'Field Thread' }, timezone: null })
  for (const { id, from_s, to_s, summary, description } of events)
    calendar.createEvent({
      id,
      start: new Date(from_s * 1000),
      end: new Date(to_s * 1000),
      summary,
      description,
      stamp: written,
    })
  return `${calendar.toString()}\r\n`
}
