import { sql, type Transaction } from 'kysely'
import type { Property } from '../../core/formats'
import { FACT_COLLECTION, SCHEMA_VERSION, type Accepted, type Facts, type FactKind } from '../../core/record'
import { applyBatch, siteSchema, type Command, type Site, type Write } from '../../core/site'
import type { Database } from './database'
import { OWNED, type Tables } from './tables'

type Within = Transaction<Tables>

/** A past site is found from the nearest snapshot before it. */
const SNAPSHOT_EVERY = 50

export interface Listed {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly controllers: number
  readonly stations: number
  readonly visits: number
  readonly lastVisit: string | null
}

/** All properties by name, with what the list shows. */
export async function listProperties(db: Database): Promise<Listed[]> {
  const rows = await db
    .with('seen', (w) =>
      w
        .selectFrom('visits')
        .select(['property', sql<number>`count(*)::int`.as('visits'), (eb) => eb.fn.max('at').as('lastVisit')])
        .groupBy('property'),
    )
    .selectFrom('properties as p')
    .leftJoin('seen', 'seen.property', 'p.id')
    .select(['p.id', 'p.name', 'p.revision', 'p.controllers', 'p.stations', 'seen.visits', 'seen.lastVisit'])
    .orderBy('p.name')
    .orderBy('p.id')
    .execute()
  return rows.map((r) => ({ ...r, visits: r.visits ?? 0, lastVisit: r.lastVisit?.toISOString() ?? null }))
}

/** A step of the journal as the page sees it. */
export interface Step {
  readonly id: string
  readonly revision: number
  readonly author: string
  readonly device: string
  readonly at: string
  readonly undoes: string | null
  readonly writes: readonly Write[]
}

/** So many steps come at once. */
const STEPS = 50

/** The steps before a revision, the latest first. */
export async function stepsBefore(db: Database | Within, property: string, revision: number): Promise<Step[]> {
  const batches = await db
    .selectFrom('batches')
    .select(['id', 'revision', 'author_name', 'device', 'at', 'undoes', 'writes'])
    .where('property', '=', property)
    .where('revision', '<', revision)
    .orderBy('revision', 'desc')
    .limit(STEPS)
    .execute()
  return batches.map((b) => ({
    id: b.id,
    revision: b.revision,
    author: b.author_name,
    device: b.device,
    at: b.at.toISOString(),
    undoes: b.undoes,
    writes: b.writes,
  }))
}

/** A whole property with its last steps, or null. One snapshot of the database, so that site and facts belong together. */
export async function readWhole(db: Database, id: string): Promise<(Property & { steps: Step[] }) | null> {
  return db
    .transaction()
    .setIsolationLevel('repeatable read')
    .execute(async (tx) => {
      const row = await tx.selectFrom('properties').select(['revision', 'site']).where('id', '=', id).executeTakeFirst()
      if (!row) return null
      const steps = await stepsBefore(tx, id, 2 ** 31 - 1)
      return { id, revision: row.revision, site: siteSchema.parse(row.site), facts: await readFacts(tx, id), steps }
    })
}

/** The site as it was at a revision: the nearest snapshot before it with the batches since; null where there never was one. */
export async function readRevision(
  db: Database,
  id: string,
  revision: number,
): Promise<{ revision: number; site: Site } | null> {
  return db
    .transaction()
    .setIsolationLevel('repeatable read')
    .execute(async (tx) => {
      const now = await tx.selectFrom('properties').select('revision').where('id', '=', id).executeTakeFirst()
      const snapshot = await tx
        .selectFrom('snapshots')
        .select(['revision', 'site'])
        .where('property', '=', id)
        .where('revision', '<=', revision)
        .orderBy('revision', 'desc')
        .limit(1)
        .executeTakeFirst()
      if (!now || now.revision < revision || !snapshot) return null
      const steps = await tx
        .selectFrom('batches')
        .select(['revision', 'commands'])
        .where('property', '=', id)
        .where('revision', '>', snapshot.revision)
        .where('revision', '<=', revision)
        .orderBy('revision')
        .execute()
      const site = steps.reduce((at, step) => {
        const next = applyBatch(at, step.commands)
        if (!next.ok)
          throw new Error(
            `readRevision: step ${step.revision} of ${id} does not apply any more: ${JSON.stringify(next.refusals)}`,
          )
        return next.value.site
      }, siteSchema.parse(snapshot.site))
      return { revision, site }
    })
}

const FACT_TABLE = {
  visits: 'visits',
  readings: 'readings',
  strikeOuts: 'strike_outs',
  cautions: 'cautions',
  closings: 'closings',
  acceptances: 'acceptances',
  findings: 'findings',
} as const satisfies Record<keyof Facts, keyof Tables>

async function readFacts(tx: Within, property: string): Promise<Facts> {
  const of = async (table: (typeof FACT_TABLE)[keyof Facts]) => {
    const rows = await tx.selectFrom(table).select(['id', 'fact']).where('property', '=', property).execute()
    return Object.fromEntries(rows.map((r) => [r.id, r.fact]))
  }
  const facts: Partial<Record<keyof Facts, unknown>> = {}
  for (const [name, table] of Object.entries(FACT_TABLE)) facts[name as keyof Facts] = await of(table)
  return facts as Facts
}

/** Stores a property that is not on record yet, with all its facts; false where its id is taken. */
export async function storeProperty(db: Database, { id, revision, site, facts }: Property): Promise<boolean> {
  return db.transaction().execute(async (tx) => {
    const made = await tx
      .insertInto('properties')
      .values({ id, ...OWNED, ...columnsOf(site, revision) })
      .onConflict((c) => c.column('id').doNothing())
      .returning('id')
      .executeTakeFirst()
    if (!made) return false
    await tx
      .insertInto('snapshots')
      .values({ property: id, revision, site: JSON.stringify(site) })
      .execute()
    for (const [kind, collection] of Object.entries(FACT_COLLECTION) as [FactKind, keyof Facts][])
      for (const [factId, fact] of Object.entries(facts[collection])) await insertFact(tx, id, factId, kind, fact)
    return true
  })
}

function columnsOf(site: Site, revision: number) {
  return {
    name: site.about.name,
    revision,
    schema_version: SCHEMA_VERSION,
    site: JSON.stringify(site),
    controllers: Object.keys(site.controllers).length,
    stations: Object.keys(site.stations).length,
  }
}

/** The site under a lock that holds until the transaction ends: changes to one property wait for each other. */
export async function lockSite(tx: Within, id: string): Promise<{ site: Site; revision: number } | null> {
  const row = await tx
    .selectFrom('properties')
    .select(['revision', 'site'])
    .where('id', '=', id)
    .forUpdate()
    .executeTakeFirst()
  return row ? { revision: row.revision, site: siteSchema.parse(row.site) } : null
}

/** The batches accepted after a revision, oldest first. */
export async function batchesSince(
  tx: Within,
  property: string,
  revision: number,
): Promise<(Accepted & { commands: Command[] })[]> {
  return tx
    .selectFrom('batches')
    .select(['id', 'revision', 'writes', 'commands'])
    .where('property', '=', property)
    .where('revision', '>', revision)
    .orderBy('revision')
    .execute()
}

/** The controllers that visits were made to: none of them may leave the site while its visits stand. */
export async function controllersVisited(tx: Within, property: string): Promise<string[]> {
  const rows = await tx
    .selectFrom('visits')
    .select(sql<string>`fact->>'controller'`.as('controller'))
    .distinct()
    .where('property', '=', property)
    .execute()
  return rows.map((r) => r.controller)
}

export async function findBatch(tx: Within, id: string) {
  return tx
    .selectFrom('batches')
    .select(['id', 'property', 'revision', 'writes', 'commands', 'undoes'])
    .where('id', '=', id)
    .executeTakeFirst()
}

export interface NewStep {
  readonly id: string
  readonly property: string
  readonly revision: number
  readonly authorName: string
  readonly device: string
  readonly at: string
  readonly commands: readonly Command[]
  readonly writes: readonly Write[]
  readonly undoes: string | null
}

/** Writes a new revision: the document, its entry in the journal, and at times a snapshot. */
export async function storeStep(tx: Within, site: Site, step: NewStep): Promise<void> {
  const { id, property, revision, authorName, device, at, commands, writes, undoes } = step
  await tx
    .updateTable('properties')
    .set({ ...columnsOf(site, revision), updated_at: new Date() })
    .where('id', '=', property)
    .execute()
  await tx
    .insertInto('batches')
    .values({
      id,
      property,
      ...OWNED,
      revision,
      author_name: authorName,
      device,
      at: new Date(at),
      undoes,
      commands: JSON.stringify(commands),
      writes: JSON.stringify(writes),
    })
    .execute()
  if (revision % SNAPSHOT_EVERY === 0)
    await tx
      .insertInto('snapshots')
      .values({ property, revision, site: JSON.stringify(site) })
      .execute()
}

type AnyFact = Facts[keyof Facts][string]

/** Adds a fact; where its id is taken, returns the fact that is there. */
export async function insertFact(
  tx: Within,
  property: string,
  id: string,
  kind: FactKind,
  fact: AnyFact,
): Promise<AnyFact | null> {
  const table = FACT_TABLE[FACT_COLLECTION[kind]]
  const owner = 'reading' in fact ? { reading: fact.reading } : 'visit' in fact ? { visit: fact.visit } : {}
  const row = { property, id, ...OWNED, at: new Date(fact.at), fact: JSON.stringify(fact), ...owner }
  const made = await tx
    .insertInto(table)
    .values(row as never)
    .onConflict((c) => c.columns(['property', 'id']).doNothing())
    .returning('id')
    .executeTakeFirst()
  if (made) return null
  return (
    await tx
      .selectFrom(table)
      .select('fact')
      .where('property', '=', property)
      .where('id', '=', id)
      .executeTakeFirstOrThrow()
  ).fact as AnyFact
}

/** Whether what a fact points at is on record; the missing id where it is not. */
export async function missingOwner(tx: Within, property: string, fact: AnyFact): Promise<string | null> {
  const [table, id] =
    'reading' in fact
      ? (['readings', fact.reading] as const)
      : 'visit' in fact
        ? (['visits', fact.visit] as const)
        : [null, '']
  if (table === null) return null
  const found = await tx
    .selectFrom(table)
    .select('id')
    .where('property', '=', property)
    .where('id', '=', id)
    .executeTakeFirst()
  return found ? null : id
}
