import { sql } from 'kysely'
import { NEEDS, SORTS } from '../core/company'
import type { Within } from '../server/db/actor'
import { listProperties, type ListQuery } from '../server/db/listing'

const TODAY = '2027-05-01'
const USUAL: ListQuery = {
  find: '',
  need: null,
  sort: 'name',
  down: false,
  offset: 0,
  limit: 100,
  archived: false,
  today: TODAY,
}
const RUNS = 20

/** The list as it is first seen. */
export const listOf = (within: Within) => listProperties(within, USUAL)

/** So many readings at every property, and what asks for somebody at a part of them, as a company might have it. */
export async function fillOffice({ tx, actor }: Within, readingsEach: number): Promise<void> {
  const { company, person } = actor
  await sql`SET LOCAL statement_timeout = 0`.execute(tx)
  await sql`
    INSERT INTO facts (company, property, kind, id, owner_kind, owner, author, at, schema_version, fact)
    SELECT ${company}, p.id, 'reading', 'r' || n, NULL, NULL, ${person}, now() - n * interval '1 day', 8,
      jsonb_build_object('value', jsonb_build_object('kind', 'ohm', 'ohm', 30 + n % 9), 'at', now(), 'ground_C', 15)
    FROM properties p CROSS JOIN generate_series(1, ${readingsEach}) AS n WHERE p.company = ${company}`.execute(tx)
  await sql`
    UPDATE attention SET faults = (random() * 1.1)::int, findings = (random() * 3)::int,
      creeping = (random() * 1.2)::int, creeps_on = ${TODAY}::date + (random() * 3000)::int,
      temporary_until = ${TODAY}::date + 20 - (random() * 300)::int,
      quotes = (random() * 0.7)::int, quoted_on = ${TODAY}::date,
      visits = 3, last_visit = now() - random() * interval '700 days',
      visit_due = ${TODAY}::date + 200 - (random() * 300)::int
    WHERE company = ${company}`.execute(tx)
  await sql`
    INSERT INTO attention_words
    SELECT p.company, p.id, to_tsvector('simple', p.name || ' ' || string_agg('B' || n || ' lawn'
      || (random() * 999)::int || ' bed' || (random() * 999)::int, ' ')
      || CASE WHEN random() < 0.05 THEN ' leak' ELSE '' END)
    FROM properties p CROSS JOIN generate_series(1, 30) AS n WHERE p.company = ${company} GROUP BY p.company, p.id
    ON CONFLICT (company, property) DO NOTHING`.execute(tx)
  await sql`DELETE FROM attention_wanted WHERE company = ${company}`.execute(tx)
}

/** 95th percentile of a view of the list in the database, ms, the worst of all views first. */
export async function viewTimes(within: <T>(work: (w: Within) => Promise<T>) => Promise<T>) {
  const views: [string, Partial<ListQuery>][] = [
    ...SORTS.flatMap((sort): [string, Partial<ListQuery>][] => [
      [`by ${sort}`, { sort }],
      [`by ${sort}, the other way, far down`, { sort, down: true, offset: 7000 }],
    ]),
    ...NEEDS.map((need): [string, Partial<ListQuery>] => [`needs ${need}`, { need, sort: 'need', down: true }]),
    ['a part of a name', { find: 'rty 77' }],
    ['a box', { find: 'B17' }],
    ['a finding and a bed', { find: 'leak bed12', need: 'any' }],
    ['nothing of that kind', { find: 'zzz' }],
  ]
  const times: { view: string; p95_ms: number; found: number }[] = []
  for (const [view, more] of views) {
    const taken: number[] = []
    let found = 0
    for (let i = 0; i < RUNS; i++) {
      const start = performance.now()
      found = (await within((w) => listProperties(w, { ...USUAL, ...more }))).total
      taken.push(performance.now() - start)
    }
    times.push({ view, p95_ms: taken.sort((a, b) => a - b)[Math.ceil(RUNS * 0.95) - 1]!, found })
  }
  return times.sort((a, b) => b.p95_ms - a.p95_ms)
}
