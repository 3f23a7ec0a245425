import { sql } from 'kysely'
import type { Within } from './actor'

/** A property as the list shows it. */
export interface Listed {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly controllers: number
  readonly stations: number
  readonly visits: number
  readonly lastVisit: string | null
  readonly archived: boolean
}

/** So many properties come at once. */
const PAGE = 100

/** Which part of the list is asked for: `find` is a part of the name, `after` the last one seen. */
export interface ListQuery {
  readonly find: string
  readonly after: string | null
  readonly archived: boolean
}

/** Properties by name, a page at a time, and how many there are in all. */
export async function listProperties(
  { tx, actor }: Within,
  { find, after, archived }: ListQuery,
): Promise<{ properties: Listed[]; total: number }> {
  const pattern = `%${find.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`
  let wanted = tx
    .selectFrom('properties as p')
    .where('p.company', '=', actor.company)
    .where('p.archived_at', archived ? 'is not' : 'is', null)
  if (find !== '') wanted = wanted.where(sql<boolean>`lower(p.name) LIKE ${pattern}`)
  const { total } = await wanted.select(sql<number>`count(*)::int`.as('total')).executeTakeFirstOrThrow()
  if (after !== null)
    wanted = wanted.where(
      sql<boolean>`(lower(p.name), p.id) > (SELECT lower(name), id FROM properties WHERE company = ${actor.company} AND id = ${after})`,
    )
  const rows = await wanted
    .leftJoinLateral(
      (of) =>
        of
          .selectFrom('facts as f')
          .select([sql<number>`count(*)::int`.as('visits'), (eb) => eb.fn.max('f.at').as('lastVisit')])
          .whereRef('f.company', '=', 'p.company')
          .whereRef('f.property', '=', 'p.id')
          .where('f.kind', '=', 'visit')
          .as('seen'),
      (join) => join.onTrue(),
    )
    .select(['p.id', 'p.name', 'p.revision', 'p.controllers', 'p.stations', 'seen.visits', 'seen.lastVisit'])
    .orderBy(sql`lower(p.name)`)
    .orderBy('p.id')
    .limit(PAGE)
    .execute()
  const properties = rows.map((r) => ({
    ...r,
    visits: r.visits ?? 0,
    lastVisit: r.lastVisit?.toISOString() ?? null,
    archived,
  }))
  return { properties, total }
}
