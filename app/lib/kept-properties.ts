import { SCHEMA_VERSION } from '../../core/record'
import { understood, wholeSchema, type Whole } from './api'
import { db, plain, type KeptProperty } from './device-db'

/** What of a property lists show. */
function listedOf({ id, revision, site, facts }: Whole): Omit<KeptProperty, 'bytes' | 'seen' | 'pinned'> {
  const visits = Object.values(facts.visits)
  return {
    id,
    name: site.about.name,
    revision,
    controllers: Object.keys(site.controllers).length,
    stations: Object.keys(site.stations).length,
    visits: visits.length,
    lastVisit: visits.reduce<string | null>((last, v) => (last === null || v.at > last ? v.at : last), null),
  }
}

/** Keeps a property as the server gave it, to be opened without a signal; one that was pinned stays so. */
export async function keepProperty(whole: Whole, seen = new Date().toISOString()): Promise<void> {
  const text = JSON.stringify(whole)
  const tx = (await db()).transaction(['kept', 'wholes'], 'readwrite')
  const before = await tx.objectStore('kept').get(whole.id)
  await tx.objectStore('kept').put({ ...listedOf(whole), bytes: text.length, seen, pinned: before?.pinned ?? false })
  await tx.objectStore('wholes').put({ id: whole.id, schema: SCHEMA_VERSION, whole: JSON.parse(text) as unknown })
  await tx.done
}

/**
 * A property as this device keeps it, or null. What an earlier version of the page kept is read where it still holds by
 * the present one’s schema.
 */
export async function keptProperty(id: string): Promise<{ whole: Whole; seen: string } | null> {
  const database = await db()
  const [kept, meta] = await Promise.all([database.get('wholes', id), database.get('kept', id)])
  if (!kept || !meta) return null
  const read = understood(wholeSchema, 200, kept.whole)
  return read.kind === 'ok' ? { whole: read.value, seen: meta.seen } : null
}

/** Every property that this device keeps, by name. */
export async function keptProperties(): Promise<KeptProperty[]> {
  const all = await (await db()).getAll('kept')
  return all.sort((a, b) => a.name.localeCompare(b.name))
}

export async function pinProperty(id: string, pinned: boolean): Promise<void> {
  const tx = (await db()).transaction('kept', 'readwrite')
  const kept = await tx.store.get(id)
  if (kept) await tx.store.put(plain({ ...kept, pinned }))
  await tx.done
}

/** Lets go of a property; what of it waits to be sent stays. */
export async function forgetProperty(id: string): Promise<void> {
  const tx = (await db()).transaction(['kept', 'wholes'], 'readwrite')
  await tx.objectStore('kept').delete(id)
  await tx.objectStore('wholes').delete(id)
  await tx.done
}
