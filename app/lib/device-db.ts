import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Message } from '../../core/record'
import type { OwnProcedure } from './own-procedures'
import type { Refusal } from '../../core/refusal'

export interface Kept {
  readonly id: string
  readonly property: string
  readonly message: Message
}

/** A property that this device keeps, as lists show it. `bytes` as its JSON; `seen`: when the server last gave it. */
export interface KeptProperty {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly controllers: number
  readonly stations: number
  readonly visits: number
  readonly lastVisit: string | null
  readonly bytes: number
  readonly seen: string
  readonly pinned: boolean
}

/**
 * What is on this device: messages to be sent, under their place in the order of writing; those the server refused,
 * which stay until a person has let go of them; whole properties, to be opened without a signal; and the procedures
 * that the company wrote for itself.
 */
export interface Device extends DBSchema {
  outbox: { key: number; value: Kept; indexes: { id: string; property: string } }
  refused: { key: string; value: Kept & { readonly refusals: readonly Refusal[] }; indexes: { property: string } }
  kept: { key: string; value: KeptProperty }
  wholes: { key: string; value: { readonly id: string; readonly schema: number; readonly whole: unknown } }
  procedures: { key: string; value: OwnProcedure }
}

/**
 * Opens the database. Where another page of an earlier version holds it and would keep us waiting, that is a device
 * that keeps nothing for now: the page says so, and asks again with the next message.
 */
const opened = () =>
  new Promise<IDBPDatabase<Device>>((resolve, reject) => {
    openDB<Device>('field-thread', 4, {
      upgrade(db, from) {
        if (from < 1) {
          const store = db.createObjectStore('outbox', { autoIncrement: true })
          store.createIndex('id', 'id')
          store.createIndex('property', 'property')
        }
        if (from < 2) db.createObjectStore('refused', { keyPath: 'id' }).createIndex('property', 'property')
        if (from < 3) {
          db.createObjectStore('kept', { keyPath: 'id' })
          db.createObjectStore('wholes', { keyPath: 'id' })
        }
        if (from < 4) db.createObjectStore('procedures', { keyPath: 'id' })
      },
      blocked() {
        reject(new Error('device: another page holds the database of an earlier version'))
      },
      // A page of a later version wants it: let it go on; what this one keeps next, it asks for anew.
      blocking(_current, _wanted, event) {
        ;(event.target as IDBDatabase).close()
        database = null
      },
    }).then(resolve, reject)
  })
let database: Promise<IDBPDatabase<Device>> | null = null

/** The device’s own database; rejects where it keeps nothing. */
export function db(): Promise<IDBPDatabase<Device>> {
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
export const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
