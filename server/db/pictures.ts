import { sql } from 'kysely'
import { ownedBy, type Within } from './actor'
import { findProperty } from './sites'

export interface Picture {
  readonly kind: string
  readonly bytes: Buffer
}

/** A property keeps no more pictures than this, in bytes. */
export const MOST_PICTURE_BYTES = 400_000_000

/** Keeps a picture of a property once; the same bytes again change nothing. */
export async function storePicture(
  within: Within,
  property: string,
  sha256: string,
  { kind, bytes }: Picture,
): Promise<'kept' | 'no_such_property' | 'pictures_full'> {
  const { tx, actor } = within
  if (!(await findProperty(within, property, 'share'))) return 'no_such_property'
  const held = await tx
    .selectFrom('pictures')
    .select([
      sql<number>`coalesce(sum(length(bytes)), 0)::float8`.as('bytes'),
      sql<boolean>`coalesce(bool_or(sha256 = ${sha256}), false)`.as('here'),
    ])
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .executeTakeFirstOrThrow()
  if (held.here) return 'kept'
  if (held.bytes + bytes.length > MOST_PICTURE_BYTES) return 'pictures_full'
  await tx
    .insertInto('pictures')
    .values({ ...ownedBy(actor), property, sha256, kind, bytes })
    .onConflict((c) => c.doNothing())
    .execute()
  return 'kept'
}

export async function readPicture({ tx, actor }: Within, property: string, sha256: string): Promise<Picture | null> {
  const row = await tx
    .selectFrom('pictures')
    .select(['kind', 'bytes'])
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .where('sha256', '=', sha256)
    .executeTakeFirst()
  return row ?? null
}

/** The addresses of a property's pictures. */
export async function picturesOf({ tx, actor }: Within, property: string): Promise<string[]> {
  const rows = await tx
    .selectFrom('pictures')
    .select('sha256')
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .orderBy('sha256')
    .execute()
  return rows.map((r) => r.sha256)
}
