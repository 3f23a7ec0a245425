import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Message } from '../../core/record'
import type { Refusal } from '../../core/refusal'

/** A message that the server will not take, with its reasons. */
export interface Rejected {
  readonly message: Message
  readonly refusals: readonly Refusal[]
}

interface Kept {
  readonly id: string
  readonly property: string
  readonly message: Message
}

/**
 * Messages on this device: those to be sent, under their place in the order of writing, and those the server refused,
 * which stay until a person has let go of them.
 */
interface Outbox extends DBSchema {
  outbox: { key: number; value: Kept; indexes: { id: string; property: string } }
  refused: { key: string; value: Kept & { readonly refusals: readonly Refusal[] }; indexes: { property: string } }
}

/**
 * Opens the database. Where another page of an earlier version holds it and would keep us waiting, that is a device
 * that keeps nothing for now: the page says so, and asks again with the next message.
 */
const opened = () =>
  new Promise<IDBPDatabase<Outbox>>((resolve, reject) => {
    openDB<Outbox>('field-thread', 2, {
      upgrade(db, from) {
        if (from < 1) {
          const store = db.createObjectStore('outbox', { autoIncrement: true })
          store.createIndex('id', 'id')
          store.createIndex('property', 'property')
        }
        if (from < 2) db.createObjectStore('refused', { keyPath: 'id' }).createIndex('property', 'property')
      },
      blocked() {
        reject(new Error('outbox: another page holds the database of an earlier version'))
      },
      // A page of a later version wants it: let it go on; what this one keeps next, it asks for anew.
      blocking(_current, _wanted, event) {
        ;(event.target as IDBDatabase).close()
        database = null
      },
    }).then(resolve, reject)
  })
let database: Promise<IDBPDatabase<Outbox>> | null = null
function db(): Promise<IDBPDatabase<Outbox>> {
  if (database === null) {
    const asked = opened()
    database = asked
    asked.catch(() => {
      if (database === asked) database = null
    })
  }
  return database
}

/** What comes out of reactive state; the database wants a plain value. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
const kept = (message: Message): Kept => ({ id: message.id, property: message.property, message: plain(message) })

/** Resolves when the message is on disk: from then on neither a reload nor a crash loses it. */
export async function keep(message: Message): Promise<void> {
  const tx = (await db()).transaction('outbox', 'readwrite', { durability: 'strict' })
  await tx.store.add(kept(message))
  await tx.done
}

/** What waits of a property, in the order written. */
export async function keptFor(property: string): Promise<Message[]> {
  return (await (await db()).getAllFromIndex('outbox', 'property', property)).map((k) => k.message)
}

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
