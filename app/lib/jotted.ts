import type { Message } from '../../core/record'

const PREFIX = 'field-thread.jotted.'

/**
 * Writes a message down at once. The device's database answers a moment later, and a page that is left in that moment
 * takes what it had asked for along; this place needs no answer. A device that has no room here goes without.
 */
export function jot(message: Message): void {
  try {
    localStorage.setItem(PREFIX + message.id, JSON.stringify(message))
  } catch {
    /* no room, or none allowed: the database is asked in any case */
  }
}

/** Lets go of it: the database has it, or the server. */
export function rubOut(id: string): void {
  try {
    localStorage.removeItem(PREFIX + id)
  } catch {
    /* what is not allowed here was never written */
  }
}

/** What a page that went away had written down and the database never had, the earliest first. */
export function jottings(): Message[] {
  try {
    return Object.entries({ ...localStorage })
      .filter(([key]) => key.startsWith(PREFIX))
      .map(([, text]) => JSON.parse(text) as Message)
      .sort((a, b) => a.id.localeCompare(b.id))
  } catch {
    return []
  }
}
