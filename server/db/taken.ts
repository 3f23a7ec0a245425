import { sql } from 'kysely'
import type { TakenMinutes } from '../../core/quote'
import type { Within } from './actor'

/**
 * How long the repairs of all properties really took, by their codes: of each item that was done the latest word, where
 * somebody said how long it took and the quote knows what is usual.
 */
export async function takenMinutes({ tx, actor }: Within): Promise<TakenMinutes[]> {
  const { rows } = await sql<TakenMinutes>`
    WITH works AS (
      SELECT DISTINCT ON (f.property, f.owner, f.fact->>'item') f.property, f.owner AS quote, f.fact
      FROM facts f WHERE f.company = ${actor.company} AND f.kind = 'workDone'
      ORDER BY f.property, f.owner, f.fact->>'item', f.at DESC, f.id DESC)
    SELECT i->'of'->>'option' AS code, count(*)::int AS count,
      sum((i->>'usual_min')::float8) AS usual_min, sum((w.fact->>'minutes')::float8) AS taken_min
    FROM works w
    JOIN facts q ON q.company = ${actor.company} AND q.property = w.property AND q.kind = 'quote' AND q.id = w.quote
    CROSS JOIN LATERAL jsonb_array_elements(q.fact->'items') AS i
    WHERE i->>'key' = w.fact->>'item' AND i->'of'->>'kind' = 'repair'
      AND NOT coalesce((w.fact->>'undone')::boolean, false)
      AND w.fact->>'minutes' IS NOT NULL AND i->>'usual_min' IS NOT NULL
    GROUP BY 1 ORDER BY 1`.execute(tx)
  return rows
}
