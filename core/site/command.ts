import * as z from 'zod'
import { COLLECTIONS, type CollectionName } from './site'

const collectionName = z.enum(Object.keys(COLLECTIONS) as [CollectionName, ...CollectionName[]])
const id = z.string().max(64)
const field = z.string().max(40)

/** One change to a site. A `set` writes one whole field, so that two people can work on one record. */
export const command = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('create'), in: collectionName, id, record: z.unknown() }),
  z.strictObject({ do: z.literal('set'), in: collectionName, id, field, value: z.unknown() }),
  z.strictObject({ do: z.literal('remove'), in: collectionName, id }),
  z.strictObject({ do: z.literal('setAbout'), field, value: z.unknown() }),
  z.strictObject({ do: z.literal('setSetting'), field, value: z.unknown() }),
])
export type Command = z.infer<typeof command>

/**
 * What a batch changed at one address. The path is [collection, id] for a whole record (then `null` means it was or is
 * not there), [collection, id, field], or ['about' | 'settings', field].
 */
export const write = z.strictObject({
  path: z.array(z.string()).min(2).max(3),
  before: z.unknown(),
  after: z.unknown(),
})
export type Write = z.infer<typeof write>
