import { ChangedFields } from '../../core/record'
import type { Within } from './actor'
import { footprintsBetween } from './journal'
import { findProperty } from './sites'

/** What was written between two revisions of a property, kept from one message to the next. */
interface Known {
  readonly made: number
  readonly from: number
  to: number
  readonly fields: ChangedFields
}

const known = new Map<string, Known>()
const MOST_KNOWN = 32
/** A sender that is farther behind catches up first: so many addresses at once are not looked through. */
const MOST_BEHIND = 300_000

/**
 * Which addresses were written after a base, up to the present revision; null where that is too much to look through.
 * Called under the property's lock, so that nothing is added meanwhile.
 */
export async function changesSince(
  within: Within,
  property: string,
  base: number,
  now: number,
): Promise<ChangedFields | null> {
  const row = await findProperty(within, property)
  const made = row?.created_at.getTime() ?? 0
  const key = `${within.actor.company} ${property}`
  let state = known.get(key)
  if (state?.made !== made || state.from > base || state.to > now)
    state = { made, from: Math.min(base, now), to: Math.min(base, now), fields: new ChangedFields() }
  if (state.to < now) {
    for (const batch of await footprintsBetween(within, property, state.to, now)) state.fields.add(batch)
    state.to = now
  }
  known.delete(key)
  if (state.fields.size > MOST_BEHIND) return state.from === base ? null : changesSince(within, property, base, now)
  known.set(key, state)
  for (const oldest of known.keys()) {
    if (known.size <= MOST_KNOWN) break
    known.delete(oldest)
  }
  return state.fields
}
