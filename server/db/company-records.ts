import type { CompanyRecordKind } from '../../core/company'
import { sameJson } from '../../core/site'
import { ownedBy, type Within } from './actor'

export interface CompanyRecord {
  readonly revision: number
  readonly record: unknown
}

/** A company's record of a kind; revision 0 and null where there is none. */
export async function companyRecord({ tx, actor }: Within, kind: CompanyRecordKind): Promise<CompanyRecord> {
  const row = await tx
    .selectFrom('company_records')
    .select(['revision', 'record'])
    .where('company', '=', actor.company)
    .where('kind', '=', kind)
    .executeTakeFirst()
  return row ?? { revision: 0, record: null }
}

/**
 * Keeps a record in place of the revision it began from, 0 for the first. Sent again it is done already.
 * @returns its revision; null where it has been changed since
 */
export async function keepCompanyRecord(
  within: Within,
  kind: CompanyRecordKind,
  base: number,
  record: unknown,
): Promise<number | null> {
  const { tx, actor } = within
  const there = await companyRecord(within, kind)
  if (there.revision > 0 && sameJson(there.record, record)) return there.revision
  if (there.revision !== base) return null
  const kept = { revision: base + 1, record: JSON.stringify(record), updated_at: new Date() }
  const done = await tx
    .insertInto('company_records')
    .values({ ...ownedBy(actor), kind, ...kept })
    .onConflict((c) =>
      c
        .columns(['company', 'kind'])
        .doUpdateSet({ ...kept, author: actor.person })
        .where('company_records.revision', '=', base),
    )
    .returning('revision')
    .executeTakeFirst()
  return done?.revision ?? null
}
