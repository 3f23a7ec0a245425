import { sql } from 'kysely'
import type { Attention } from '../../core/attention'
import type { Lives } from '../../core/failures'
import type { Within } from './actor'
import { keepLives } from './part-lives'

/** Notes that what of a property asks for somebody is to be worked out anew; with what changed it, or not at all. */
export async function wantAttention({ tx, actor }: Within, property: string): Promise<void> {
  await tx.insertInto('attention_wanted').values({ company: actor.company, property }).execute()
}

/** A property whose attention is to be worked out, and up to which note. */
export interface Wanted {
  readonly property: string
  readonly upTo: string
}

/** Somebody who writes on and on is not waited for longer than this many times the quiet. */
const MOST_QUIETS = 12

/**
 * The property that has waited longest of those at which nothing was written for some seconds: while a crew reads on,
 * what it asks for is not worked out with every reading.
 * @returns `later` where all that waits is written at still; null where nothing waits
 */
export async function nextWanted({ tx, actor }: Within, quiet_s: number): Promise<Wanted | 'later' | null> {
  const rows = await tx
    .selectFrom('attention_wanted')
    .select(['property', (eb) => eb.fn.max('number').as('upTo')])
    .select(
      sql<boolean>`max(noted_at) <= now() - ${quiet_s}::float8 * interval '1 second'
        OR min(noted_at) <= now() - ${quiet_s * MOST_QUIETS}::float8 * interval '1 second'`.as('quiet'),
    )
    .where('company', '=', actor.company)
    .groupBy('property')
    .orderBy('quiet', 'desc')
    .orderBy((eb) => eb.fn.min('number'))
    .limit(1)
    .execute()
  const [row] = rows
  if (!row) return null
  return row.quiet ? { property: row.property, upTo: String(row.upTo) } : 'later'
}

/** What was worked out of a property. */
export interface FoundAttention {
  readonly attention: Attention
  /** What it is found by. */
  readonly words: string
  readonly origin: { readonly latitude_deg: number; readonly longitude_deg: number } | null
  readonly lives: readonly Lives[]
}

/** What was worked out, in place of what was; notes that came meanwhile stay. */
export async function keepAttention(
  { tx, actor }: Within,
  { property, upTo }: Wanted,
  found: FoundAttention | null,
): Promise<void> {
  if (found) {
    const { attention: a, words, origin, lives } = found
    await keepLives({ tx, actor }, property, lives)
    const row = {
      astray: a.astray,
      faults: a.faults,
      findings: a.findings,
      creeping: a.creeping,
      creeps_on: a.creepsOn,
      temporary: a.temporary,
      temporary_until: a.temporaryUntil,
      quotes: a.quotes,
      quoted_on: a.quotedOn,
      visits: a.visits,
      last_visit: a.lastVisit === null ? null : new Date(a.lastVisit),
      visit_due: a.visitDue,
      latitude_deg: origin?.latitude_deg ?? null,
      longitude_deg: origin?.longitude_deg ?? null,
    }
    const foundBy = { words: sql<string>`to_tsvector('simple', ${words})` }
    await tx
      .updateTable('attention')
      .set(row)
      .where('company', '=', actor.company)
      .where('property', '=', property)
      .execute()
    await tx
      .insertInto('attention_words')
      .values({ company: actor.company, property, ...foundBy })
      .onConflict((c) => c.columns(['company', 'property']).doUpdateSet(foundBy))
      .execute()
  }
  await tx
    .deleteFrom('attention_wanted')
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .where('number', '<=', upTo)
    .execute()
}
