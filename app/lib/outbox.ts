import type { Message } from '../../core/record'
import type { Refusal } from '../../core/refusal'
import { db, plain, type Kept } from './device-db'
import { jot, jottings, rubOut } from './jotted'

/** A message that the server will not take, with its reasons. */
export interface Rejected {
  readonly message: Message
  readonly refusals: readonly Refusal[]
}

const kept = (message: Message): Kept => ({ id: message.id, property: message.property, message: plain(message) })

/**
 * Resolves when the message is in the database: from then on neither a reload nor a crash loses it. A page that is left
 * before that has written it down already, and the next one finds it there.
 */
export async function keep(message: Message): Promise<void> {
  jot(message)
  await write(message)
}

/** Once: another page may have found it written down meanwhile. */
async function write(message: Message): Promise<void> {
  const tx = (await db()).transaction('outbox', 'readwrite', { durability: 'strict' })
  if ((await tx.store.index('id').getKey(message.id)) === undefined) await tx.store.add(kept(message))
  await tx.done
  rubOut(message.id)
}

/** Brings in what pages that went away had only written down. */
async function gathered() {
  for (const message of jottings()) await write(message)
  return db()
}

/** What waits of a property, in the order written. */
export async function keptFor(property: string): Promise<Message[]> {
  return (await (await gathered()).getAllFromIndex('outbox', 'property', property)).map((k) => k.message)
}

/** Every property with something that waits, other than one. */
export async function propertiesWaiting(but: string | null): Promise<string[]> {
  const all = await (await gathered()).getAll('outbox')
  return [...new Set(all.map((k) => k.property))].filter((id) => id !== but)
}

/** How many messages wait on this device, by property. */
export async function countsWaiting(): Promise<Map<string, number>> {
  const counts = new Map<string, number>()
  for (const { property } of await (await gathered()).getAll('outbox'))
    counts.set(property, (counts.get(property) ?? 0) + 1)
  return counts
}

/** How many messages wait on this device, of all properties. */
export const countWaiting = async (): Promise<number> => (await gathered()).count('outbox')

/** What of a property was refused and not let go of yet, the earliest first. */
export async function refusedFor(property: string): Promise<Rejected[]> {
  const all = await (await db()).getAllFromIndex('refused', 'property', property)
  return all
    .sort((a, b) => a.message.at.localeCompare(b.message.at))
    .map(({ message, refusals }) => ({ message, refusals }))
}

/** Lets go of what the server has, and keeps what it refused among the refused: both or neither. */
export async function settleKept(taken: readonly Message[], refused: readonly Rejected[]): Promise<void> {
  const tx = (await db()).transaction(['outbox', 'refused'], 'readwrite', { durability: 'strict' })
  for (const { message, refusals } of refused)
    await tx.objectStore('refused').put({ ...kept(message), refusals: plain(refusals) })
  const outbox = tx.objectStore('outbox')
  for (const { id } of [...taken, ...refused.map((r) => r.message)]) {
    const key = await outbox.index('id').getKey(id)
    if (key !== undefined) await outbox.delete(key)
    rubOut(id)
  }
  await tx.done
}

/** Lets go of a refused message, or puts it back among those to be sent. */
export async function settleRefused(message: Message, again: boolean): Promise<void> {
  const tx = (await db()).transaction(['outbox', 'refused'], 'readwrite', { durability: 'strict' })
  if (again) await tx.objectStore('outbox').add(kept(message))
  await tx.objectStore('refused').delete(message.id)
  await tx.done
}
