import { sql, type RawBuilder } from 'kysely'
import { NEEDS, type Looking, type Need, type Sort } from '../../core/company'
import type { Within } from './actor'

/** A property as the list shows it: what asks for somebody by days, so that it holds until the record changes. */
export interface Listed {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly controllers: number
  readonly stations: number
  readonly visits: number
  readonly lastVisit: string | null
  readonly archived: boolean
  readonly astray: number
  readonly faults: number
  readonly findings: number
  readonly creeping: number
  readonly creepsOn: string | null
  readonly temporary: number
  readonly temporaryUntil: string | null
  readonly quotes: number
  readonly quotedOn: string | null
  readonly visitDue: string | null
  readonly latitude_deg: number | null
  readonly longitude_deg: number | null
}

/** Which part of the list is asked for. `find`: words, or beginnings, of its name, boxes, stations and findings. */
export interface ListQuery extends Looking {
  readonly offset: number
  readonly limit: number
  readonly archived: boolean
  /** Today where it is asked: what is overdue depends on it. */
  readonly today: string
}

/** Properties that a query finds: how many in all, how many with each need, and those of the window asked for. */
export interface Found {
  readonly properties: Listed[]
  readonly total: number
  readonly needs: Readonly<Record<Need | 'all', number>>
}

/** A joint that will have crept out of its band counts from so many days before. */
const CREEPS_WITHIN_days = 365

/** Letters of all alphabets, large and small, in everybody’s order: the database’s own knows those of English alone. */
const ANY_LETTERS = sql.raw('COLLATE "und-x-icu"')

/** What stands still, what was to be undone, what will stand still, and then who waits for us. */
const WORST_FIRST: readonly Exclude<Need, 'any'>[] = ['faults', 'temporary', 'creeping', 'visit', 'findings', 'quotes']

/** The needs of a property as one number that is the greater the worse they are: a bit each, the worst the highest. */
const bitOf = (need: Exclude<Need, 'any'>) => 1 << (WORST_FIRST.length - 1 - WORST_FIRST.indexOf(need))

/** The bits of which one must be there for a need to be. */
const bitsOf = (need: Need) => (need === 'any' ? (1 << WORST_FIRST.length) - 1 : bitOf(need))

function needsOn(today: string): RawBuilder<number> {
  const has: Readonly<Record<Exclude<Need, 'any'>, RawBuilder<boolean>>> = {
    faults: sql`faults + astray > 0`,
    findings: sql`findings > 0`,
    creeping: sql`creeps_on <= ${today}::date + ${sql.lit(CREEPS_WITHIN_days)}`,
    temporary: sql`temporary_until < ${today}::date`,
    quotes: sql`quotes > 0`,
    visit: sql`visit_due <= ${today}::date`,
  }
  const bits = WORST_FIRST.map((need) => sql`CASE WHEN ${has[need]} THEN ${sql.lit(bitOf(need))} ELSE 0 END`)
  return sql`(${sql.join(bits, sql` + `)})`
}

/** The words of a search as the database looks for them, each by its beginning; null where there are none. */
function wordsQuery(find: string): RawBuilder<string> | null {
  const words = find
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w !== '')
  if (words.length === 0) return null
  return sql<string>`to_tsquery('simple', ${words.map((w) => `'${w}':*`).join(' & ')})`
}

/** A window of the list of properties, by words, needs and order. */
export async function listProperties({ tx, actor }: Within, query: ListQuery): Promise<Found> {
  const { find, need, sort, down, offset, limit, archived, today } = query
  const pattern = `%${find.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`
  const words = wordsQuery(find)
  const byWords = words
    ? sql`property IN (SELECT property FROM attention_words WHERE company = ${actor.company} AND words @@ ${words}) OR`
    : sql``
  const byFind = find === '' ? sql`` : sql`AND (${byWords} folded LIKE ${pattern})`
  const wanted = need === null ? sql`` : sql`WHERE needs & ${sql.lit(bitsOf(need))} > 0`
  type Row = Omit<Listed, 'archived'> & { readonly place: number }
  // What is found is counted by needs, and the window of it that is shown: passing twice over the index costs less than
  // writing it down between, looking for words twice costs more. Names are compared in the index alone; what comes
  // after goes by their places in it.
  const { rows } = await sql<{ counts: { needs: number; properties: number }[] | null; shown: Row[] | null }>`
    WITH found AS ${sql.raw(words ? 'MATERIALIZED' : 'NOT MATERIALIZED')} (
      SELECT property AS id, row_number() OVER (ORDER BY name ${ANY_LETTERS}, property) AS place, updated_at,
        last_visit, visit_due, ${needsOn(today)} AS needs
      FROM attention WHERE company = ${actor.company} AND ${sql.raw(archived ? 'archived' : 'NOT archived')} ${byFind}),
    shown AS (
      SELECT id, row_number() OVER () AS place FROM (
        SELECT id FROM found ${wanted} ORDER BY ${orderOf(sort, down)}, place LIMIT ${limit} OFFSET ${offset}) AS w),
    rows AS (
      SELECT shown.place, p.id, p.name, p.revision, p.controllers, p.stations, seen.visits, seen."lastVisit",
        a.astray, a.faults, a.findings, a.creeping, a.creeps_on AS "creepsOn", a.temporary,
        a.temporary_until AS "temporaryUntil", a.quotes, a.quoted_on AS "quotedOn", a.visit_due AS "visitDue",
        a.latitude_deg, a.longitude_deg
      FROM shown JOIN properties p ON p.company = ${actor.company} AND p.id = shown.id
      JOIN attention a ON a.company = p.company AND a.property = p.id
      CROSS JOIN LATERAL (
        SELECT count(*)::int AS visits, max(f.at) AS "lastVisit" FROM facts f
        WHERE f.company = p.company AND f.property = p.id AND f.kind = 'visit') AS seen)
    SELECT (SELECT json_agg(c) FROM (SELECT needs, count(*)::int AS properties FROM found GROUP BY needs) AS c) AS counts,
      (SELECT json_agg(rows ORDER BY place) FROM rows) AS shown`.execute(tx)
  const shown = rows[0]!.shown ?? []
  const counts = rows[0]!.counts ?? []
  const having = (bits: number) =>
    counts.reduce((sum, { needs, properties }) => sum + ((needs & bits) === 0 ? 0 : properties), 0)
  const needs = {
    all: counts.reduce((sum, { properties }) => sum + properties, 0),
    ...(Object.fromEntries(NEEDS.map((name) => [name, having(bitsOf(name))])) as Record<Need, number>),
  }
  return {
    properties: shown.map(({ place: _, ...r }) => ({
      ...r,
      lastVisit: r.lastVisit === null ? null : new Date(r.lastVisit).toISOString(),
      archived,
    })),
    total: needs[need ?? 'all'],
    needs,
  }
}

/** What comes first; what has none of it comes last, whichever way it is looked at. */
function orderOf(sort: Sort, down: boolean): RawBuilder<unknown> {
  const way = sql.raw(down ? 'DESC' : 'ASC')
  switch (sort) {
    case 'name':
      return sql`place ${way}`
    case 'visit':
      return sql`last_visit ${way} NULLS LAST`
    case 'due':
      return sql`visit_due ${way} NULLS LAST`
    case 'changed':
      return sql`updated_at ${way}`
    case 'need':
      return sql`needs ${way}`
  }
}
