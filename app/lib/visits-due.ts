import { looking } from '../../core/company'
import { writeCalendar } from '../../core/formats'
import { fetchProperties, LIST_WINDOW, type Listed } from './api'
import { today } from './today'

/**
 * The days on which visits are due, of all properties, as iCalendar; null where the server is not reached.
 * @param says what stands in the calendar for a property
 */
export async function visitsDueCalendar(name: string, says: (p: Listed) => string): Promise<string | null> {
  const due: Listed[] = []
  for (let offset = 0, total = 1; offset < total; offset += LIST_WINDOW) {
    const reply = await fetchProperties(looking.parse({ sort: 'due', down: true }), false, offset, today())
    if (reply.kind !== 'ok') return null
    total = reply.value.total
    due.push(...reply.value.properties)
  }
  const events = due.flatMap((p) =>
    p.visitDue === null ? [] : [{ id: `visit-due-${p.id}`, day: p.visitDue, summary: says(p), description: '' }],
  )
  return writeCalendar(name, events, new Date())
}
