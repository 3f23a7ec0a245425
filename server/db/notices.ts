import { sql, type Kysely } from 'kysely'
import pg from 'pg'
import * as z from 'zod'
import { news, type News } from '../../core/record'
import type { Actor, Within } from './actor'
import type { Tables } from './tables'

/** The channel that all processes of a server tell each other on. */
const CHANNEL = 'field_thread'
/** PostgreSQL carries less than 8000 bytes a notice; some of them say whose it is. */
const MOST_BYTES = 7700

const notice = z.strictObject({ company: z.string(), property: z.string(), news })
export type Notice = z.infer<typeof notice>

type NewFact = Extract<News, { kind: 'facts' }>['facts'][number]

/** Tells every process; in a transaction that goes out when it is certain, and not at all where it is taken back. */
export async function tell({ tx, actor }: Within, property: string, what: News): Promise<void> {
  const written = JSON.stringify({ company: actor.company, property, news: what } satisfies Notice)
  await sql`SELECT pg_notify(${CHANNEL}, ${written})`.execute(tx)
}

/** Tells of new facts, in as many notices as they need; of one that is too large for any, that there is something. */
export async function tellFacts(within: Within, property: string, facts: readonly NewFact[]): Promise<void> {
  let [together, bytes] = [[] as NewFact[], 0]
  const send = async () => {
    if (together.length > 0) await tell(within, property, { kind: 'facts', facts: together })
    together = []
    bytes = 0
  }
  for (const fact of facts) {
    const own = Buffer.byteLength(JSON.stringify(fact)) + 1
    if (bytes + own > MOST_BYTES) await send()
    if (own > MOST_BYTES) await tell(within, property, { kind: 'large' })
    else together.push(fact)
    bytes += own > MOST_BYTES ? 0 : own
  }
  await send()
}

/** A connection of its own that hears every notice; `gone` is called once, when it has ended. */
export async function hear(url: string, heard: (notice: Notice) => void, gone: () => void): Promise<() => void> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 4000, keepAlive: true })
  let ended = false
  const end = () => {
    if (ended) return
    ended = true
    void client.end().catch(() => undefined)
    gone()
  }
  client.on('error', end)
  client.on('end', end)
  client.on('notification', ({ payload }) => {
    const read = notice.safeParse(JSON.parse(payload ?? 'null'))
    if (read.success) heard(read.data)
  })
  await client.connect()
  await client.query(`LISTEN ${CHANNEL}`)
  return end
}

/** How many facts a property has and its revision: what somebody who was away holds theirs against. */
export async function standingOf(
  { tx, actor }: { tx: Kysely<Tables>; actor: Actor },
  property: string,
): Promise<{ revision: number; facts: number } | null> {
  const row = await tx
    .selectFrom('properties')
    .select((eb) => [
      'revision',
      eb
        .selectFrom('facts')
        .select((f) => f.fn.countAll<string>().as('count'))
        .where('facts.company', '=', actor.company)
        .where('facts.property', '=', property)
        .as('facts'),
    ])
    .where('company', '=', actor.company)
    .where('id', '=', property)
    .executeTakeFirst()
  return row ? { revision: row.revision, facts: Number(row.facts) } : null
}
