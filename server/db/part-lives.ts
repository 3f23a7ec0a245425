import { sql } from 'kysely'
import type { FoundCounts, JournalChange, Lives } from '../../core/failures'
import type { Within } from './actor'

/**
 * What a property's journal says of its joints and devices, oldest first, and since when it is on record: by its first
 * change, its first fact, or when it came in here.
 */
export async function partsJournal(
  { tx, actor }: Within,
  property: string,
): Promise<{ began: string; journal: JournalChange[] }> {
  const { rows } = await sql<{ began: Date }>`
    SELECT least(p.created_at,
      (SELECT min(at) FROM batches WHERE company = p.company AND property = p.id),
      (SELECT min(at) FROM facts WHERE company = p.company AND property = p.id)) AS began
    FROM properties p WHERE p.company = ${actor.company} AND p.id = ${property}`.execute(tx)
  const { rows: changes } = await sql<Omit<JournalChange, 'at'> & { at: Date }>`
    SELECT id, at, undoes,
      jsonb_path_query_array(writes, '$[*] ? (@.path[0] == "splices" || @.path[0] == "devices")') AS writes
    FROM batches WHERE company = ${actor.company} AND property = ${property} ORDER BY revision`.execute(tx)
  const journal = changes.map((c) => ({ ...c, at: c.at.toISOString() }))
  return { began: (rows[0]?.began ?? new Date()).toISOString(), journal }
}

export async function keepLives({ tx, actor }: Within, property: string, lives: readonly Lives[]): Promise<void> {
  const kept = JSON.stringify(lives)
  await tx
    .insertInto('part_lives')
    .values({ company: actor.company, property, lives: kept })
    .onConflict((c) => c.columns(['company', 'property']).doUpdateSet({ lives: kept }))
    .execute()
}

/** The lives of all joints and coils of a company, those that are alike together. */
export async function livesOfAll({ tx, actor }: Within): Promise<Lives[]> {
  const { rows } = await sql<Lives>`
    SELECT part, kind, made, "from", until, "end", sum(count)::int AS count
    FROM part_lives, jsonb_to_recordset(lives)
      AS l(part text, kind text, made text, "from" text, until text, "end" text, count int)
    WHERE company = ${actor.company} GROUP BY part, kind, made, "from", until, "end"`.execute(tx)
  return rows
}

/** How often each kind of part was found bad, over all properties of a company. */
export async function foundKinds({ tx, actor }: Within): Promise<FoundCounts> {
  const { rows } = await sql<{ kind: keyof FoundCounts; count: number }>`
    SELECT fact->'where'->>'kind' AS kind, count(*)::int AS count FROM facts
    WHERE company = ${actor.company} AND kind = 'finding' AND fact->'where'->>'kind' IS NOT NULL GROUP BY 1`.execute(tx)
  return Object.fromEntries(rows.map((r) => [r.kind, r.count]))
}
