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

function conditions(today: string): Readonly<Record<Exclude<Need, 'any'>, RawBuilder<boolean>>> {
  return {
    faults: sql<boolean>`a.faults + a.astray > 0`,
    findings: sql<boolean>`a.findings > 0`,
    creeping: sql<boolean>`a.creeps_on <= ${today}::date + ${sql.lit(CREEPS_WITHIN_days)}`,
    temporary: sql<boolean>`a.temporary_until < ${today}::date`,
    quotes: sql<boolean>`a.quotes > 0`,
    visit: sql<boolean>`a.visit_due <= ${today}::date`,
  }
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
  const has = conditions(today)
  const any = sql<boolean>`(${sql.join(Object.values(has), sql` OR `)})`
  const pattern = `%${find.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`
  const words = wordsQuery(find)
  const byWords = words
    ? sql`UNION SELECT property FROM attention WHERE company = ${actor.company} AND words @@ ${words}`
    : sql``
  const byFind =
    find === ''
      ? sql``
      : sql`AND p.id IN (
          SELECT id FROM properties
          WHERE company = ${actor.company} AND lower(name ${ANY_LETTERS}) LIKE ${pattern} ${byWords})`
  const held = Object.entries({ any, ...has }).map(
    ([name, holds]) => sql`coalesce(${holds}, false) AS ${needColumn(name)}`,
  )
  const counted = NEEDS.map((name) => sql`'${sql.raw(name)}', count(*) FILTER (WHERE ${needColumn(name)})`)
  const wanted = need === null ? sql`` : sql`WHERE ${needColumn(need)}`
  type Row = Omit<Listed, 'archived'>
  // All of it in one pass: what is found, what of it is counted, and the window that is shown.
  const { rows } = await sql<{ counts: Record<Need | 'all', number>; shown: Row[] | null }>`
    WITH found AS MATERIALIZED (
      SELECT p.id, p.name ${ANY_LETTERS} AS name, p.updated_at, a.last_visit, a.visit_due, ${sql.join(held)}
      FROM properties p LEFT JOIN attention a ON a.company = p.company AND a.property = p.id
      WHERE p.company = ${actor.company} AND p.archived_at IS ${sql.raw(archived ? 'NOT NULL' : 'NULL')} ${byFind}),
    shown AS (
      SELECT id, row_number() OVER () AS place FROM (
        SELECT id FROM found ${wanted} ORDER BY ${orderOf(sort, down)}, name, id LIMIT ${limit} OFFSET ${offset}) AS w),
    rows AS (
      SELECT shown.place, p.id, p.name, p.revision, p.controllers, p.stations, seen.visits, seen."lastVisit",
        coalesce(a.astray, 0) AS astray, coalesce(a.faults, 0) AS faults, coalesce(a.findings, 0) AS findings,
        coalesce(a.creeping, 0) AS creeping, a.creeps_on AS "creepsOn",
        coalesce(a.temporary, 0) AS temporary, a.temporary_until AS "temporaryUntil",
        coalesce(a.quotes, 0) AS quotes, a.quoted_on AS "quotedOn", a.visit_due AS "visitDue",
        a.latitude_deg, a.longitude_deg
      FROM shown JOIN properties p ON p.company = ${actor.company} AND p.id = shown.id
      LEFT JOIN attention a ON a.company = p.company AND a.property = p.id
      CROSS JOIN LATERAL (
        SELECT count(*)::int AS visits, max(f.at) AS "lastVisit" FROM facts f
        WHERE f.company = p.company AND f.property = p.id AND f.kind = 'visit') AS seen)
    SELECT (SELECT jsonb_build_object('all', count(*), ${sql.join(counted)}) FROM found) AS counts,
      (SELECT jsonb_agg(to_jsonb(rows) - 'place' ORDER BY place) FROM rows) AS shown`.execute(tx)
  const { counts, shown } = rows[0]!
  return {
    properties: (shown ?? []).map((r) => ({
      ...r,
      lastVisit: r.lastVisit === null ? null : new Date(r.lastVisit).toISOString(),
      archived,
    })),
    total: counts[need ?? 'all'],
    needs: counts,
  }
}

/** The column that says whether a property has a need. */
const needColumn = (need: string) => sql.id(`needs_${need}`)

/** What comes first; what has none of it comes last, whichever way it is looked at. */
function orderOf(sort: Sort, down: boolean): RawBuilder<unknown> {
  const way = sql.raw(down ? 'DESC' : 'ASC')
  switch (sort) {
    case 'name':
      return sql`name ${way}`
    case 'visit':
      return sql`last_visit ${way} NULLS LAST`
    case 'due':
      return sql`visit_due ${way} NULLS LAST`
    case 'changed':
      return sql`updated_at ${way}`
    case 'need':
      return sql`${sql.join(
        WORST_FIRST.map((need) => sql`${needColumn(need)} ${way}`),
        sql`, `,
      )}`
  }
}

/** What stands still, what was to be undone, what will stand still, and then who waits for us. */
const WORST_FIRST: readonly Need[] = ['faults', 'temporary', 'creeping', 'visit', 'findings', 'quotes']
