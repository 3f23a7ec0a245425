import * as z from 'zod'
import { day, placeId, words } from './ids'

/** Something that was left so for a while, on purpose: it stays on the property’s list until it is undone. */
export const temporaryState = z.strictObject({
  what: words(200).min(1),
  place: placeId.nullable().default(null),
  since: day,
  /** When it is meant to end. */
  until: day.nullable().default(null),
})
export type TemporaryState = z.infer<typeof temporaryState>
