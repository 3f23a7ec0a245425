import type { StoredProperty } from '../../core/formats'
import type { Within } from './actor'
import { factsOf } from './facts'
import { presentSite, storedSite } from './sites'

/** A property as its file is written from, its facts read as they are written; null where there is none. */
export async function propertyToWrite(within: Within, id: string): Promise<StoredProperty | null> {
  const present = await presentSite(within, id)
  if (!present) return null
  const facts: StoredProperty['facts'] = (kind) => factsOf(within, id, kind)
  // What cannot be read any more is given all the same.
  return present.ok ? { id, facts, ...present.value } : { id, facts, ...(await storedSite(within, id)) }
}
