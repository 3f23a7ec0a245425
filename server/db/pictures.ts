import type { Database } from './database'
import { OWNED } from './tables'

export interface Picture {
  readonly kind: string
  readonly bytes: Buffer
}

/** Keeps a picture of a property once; false where there is no such property. The same bytes again change nothing. */
export async function storePicture(
  db: Database,
  property: string,
  sha256: string,
  { kind, bytes }: Picture,
): Promise<boolean> {
  if (!(await db.selectFrom('properties').select('id').where('id', '=', property).executeTakeFirst())) return false
  await db
    .insertInto('pictures')
    .values({ ...OWNED, property, sha256, kind, bytes })
    .onConflict((c) => c.doNothing())
    .execute()
  return true
}

export async function readPicture(db: Database, property: string, sha256: string): Promise<Picture | null> {
  return (
    (await db
      .selectFrom('pictures')
      .select(['kind', 'bytes'])
      .where('property', '=', property)
      .where('sha256', '=', sha256)
      .executeTakeFirst()) ?? null
  )
}
