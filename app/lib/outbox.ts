import { openDB, type DBSchema } from 'idb'
import type { Message } from '../../core/record'

/** A message kept on this device until the server has it, under its place in the order of writing. */
interface Outbox extends DBSchema {
  outbox: {
    key: number
    value: { id: string; property: string; message: Message }
    indexes: { id: string; property: string }
  }
}

const opened = () =>
  openDB<Outbox>('field-thread', 1, {
    upgrade(db) {
      const store = db.createObjectStore('outbox', { autoIncrement: true })
      store.createIndex('id', 'id')
      store.createIndex('property', 'property')
    },
  })
let database: ReturnType<typeof opened> | null = null
const db = () => (database ??= opened())

/** Resolves when the message is on disk: from then on neither a reload nor a crash loses it. */
export async function keep(message: Message): Promise<void> {
  const tx = (await db()).transaction('outbox', 'readwrite', { durability: 'strict' })
  // The message comes out of reactive state; the database wants a plain value.
  await tx.store.add({
    id: message.id,
    property: message.property,
    message: JSON.parse(JSON.stringify(message)) as Message,
  })
  await tx.done
}

/** What waits of a property, in the order written. */
export async function keptFor(property: string): Promise<Message[]> {
  return (await (await db()).getAllFromIndex('outbox', 'property', property)).map((kept) => kept.message)
}

export async function letGo(ids: readonly string[]): Promise<void> {
  const tx = (await db()).transaction('outbox', 'readwrite')
  for (const id of ids) {
    const key = await tx.store.index('id').getKey(id)
    if (key !== undefined) await tx.store.delete(key)
  }
  await tx.done
}
