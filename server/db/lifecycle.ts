import type { Within } from './actor'

/** Takes a property off the list or puts it back; false where there is none. Nothing of it is lost. */
export async function archiveProperty({ tx, actor }: Within, id: string, archived: boolean): Promise<boolean> {
  const done = await tx
    .updateTable('properties')
    .set({ archived_at: archived ? new Date() : null })
    .where('company', '=', actor.company)
    .where('id', '=', id)
    .returning('id')
    .executeTakeFirst()
  return done !== undefined
}

/** Deletes a property with everything that hangs on it: only one that was archived before. */
export async function deleteProperty(
  { tx, actor }: Within,
  id: string,
): Promise<'deleted' | 'no_such_property' | 'archive_first'> {
  const row = await tx
    .selectFrom('properties')
    .select('archived_at')
    .where('company', '=', actor.company)
    .where('id', '=', id)
    .forUpdate()
    .executeTakeFirst()
  if (!row) return 'no_such_property'
  if (row.archived_at === null) return 'archive_first'
  await tx.deleteFrom('properties').where('company', '=', actor.company).where('id', '=', id).execute()
  return 'deleted'
}
