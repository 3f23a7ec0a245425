import * as z from 'zod'
import { about, COLLECTIONS, type CollectionName } from './site'
import type { settings } from './settings'

const collectionName = z.enum(Object.keys(COLLECTIONS) as [CollectionName, ...CollectionName[]])
const id = z.string().max(64)
const field = z.string().max(40)

/** A record as it is written down: what may be left out is. */
export type RecordOf<K extends CollectionName> = z.input<(typeof COLLECTIONS)[K]['record']>
type KeyOf<R> = R extends unknown ? keyof R & string : never
type At<R, F extends string> = R extends unknown ? (F extends keyof R ? R[F] : never) : never
/** The fields of a collection's records, and what each can hold; where it has several kinds, of any of them. */
export type FieldOf<K extends CollectionName> = KeyOf<RecordOf<K>>
export type ValueOf<K extends CollectionName, F extends FieldOf<K>> = At<RecordOf<K>, F>
type SettingsInput = z.input<typeof settings>
type AboutInput = z.input<typeof about>

type Create = { [K in CollectionName]: { do: 'create'; in: K; id: string; record: RecordOf<K> } }[CollectionName]
type SetField = {
  [K in CollectionName]: {
    [F in FieldOf<K>]: { do: 'set'; in: K; id: string; field: F; value: ValueOf<K, F> }
  }[FieldOf<K>]
}[CollectionName]
type SetPart<D extends string, P> = { [F in KeyOf<P>]: { do: D; field: F; value: At<P, F> } }[KeyOf<P>]

/**
 * One change to a site, typed by its collection. A `set` writes one whole field, so that two people can work on one
 * record.
 */
export type Command =
  | Create
  | SetField
  | { do: 'remove'; in: CollectionName; id: string }
  | SetPart<'setAbout', AboutInput>
  | SetPart<'setSetting', SettingsInput>

export const createRecord = <K extends CollectionName>(collection: K, id: string, record: RecordOf<K>): Command =>
  ({ do: 'create', in: collection, id, record }) as Command
export const setField = <K extends CollectionName, F extends FieldOf<K>>(
  collection: K,
  id: string,
  field: F,
  value: ValueOf<K, F>,
): Command => ({ do: 'set', in: collection, id, field, value }) as unknown as Command
export const setSetting = <F extends KeyOf<SettingsInput>>(field: F, value: At<SettingsInput, F>): Command =>
  ({ do: 'setSetting', field, value }) as unknown as Command

/**
 * A command whose collection or field is known only as the program runs; it is held against the schema when applied.
 */
export const looseCommand = (
  loose:
    | ({ in: CollectionName; id: string } & (
        { do: 'create'; record: unknown } | { do: 'set'; field: string; value: unknown }
      ))
    | { do: 'setAbout' | 'setSetting'; field: string; value: unknown },
): Command => loose as Command

/** As it comes in: what it writes is held against its collection's schema when it is applied, where refusals can say of
 * which record they speak. */
export const command = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('create'), in: collectionName, id, record: z.unknown() }),
  z.strictObject({ do: z.literal('set'), in: collectionName, id, field, value: z.unknown() }),
  z.strictObject({ do: z.literal('remove'), in: collectionName, id }),
  z.strictObject({ do: z.literal('setAbout'), field, value: z.unknown() }),
  z.strictObject({ do: z.literal('setSetting'), field, value: z.unknown() }),
]) as unknown as z.ZodType<Command>

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
