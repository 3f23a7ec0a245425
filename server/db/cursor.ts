import { sql, type RawBuilder } from 'kysely'
import type { Within } from './actor'

/** Rows read at once: some hundred kilobytes of readings. */
const AT_ONCE = 1000
let opened = 0

/** The rows of a query in lists, without holding them all; within one transaction, whose moment they show. */
export async function* batchesOf<R>({ tx }: Within, query: RawBuilder<unknown>, atOnce = AT_ONCE): AsyncGenerator<R[]> {
  const name = sql.id(`rows_${++opened}`)
  await sql`DECLARE ${name} NO SCROLL CURSOR FOR ${query}`.execute(tx)
  for (;;) {
    const { rows } = await sql<R>`FETCH ${sql.lit(atOnce)} FROM ${name}`.execute(tx)
    if (rows.length > 0) yield rows
    if (rows.length < atOnce) break
  }
  await sql`CLOSE ${name}`.execute(tx)
}
