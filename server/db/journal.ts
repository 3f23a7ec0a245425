import { sql } from 'kysely'
import type { JournalStep, Snapshot } from '../../core/formats'
import { SCHEMA_VERSION, type Footprint } from '../../core/record'
import { accepted, type Outcome } from '../../core/refusal'
import { applyBatch, type Command, type Site, type Write } from '../../core/site'
import { ownedBy, type Within } from './actor'
import { wantAttention } from './attention'
import { batchesOf } from './cursor'
import { readStoredSite } from './sites'

/** A past site is found from the nearest snapshot before it. */
const SNAPSHOT_EVERY = 50

/** A step of the journal as the page lists it. */
export interface Step {
  readonly id: string
  readonly revision: number
  readonly author: string
  readonly device: string
  readonly at: string
  readonly undoes: string | null
  readonly writes: readonly Write[]
}

/** So many steps come at once, and no more bytes of what they wrote; at least one step comes. */
const STEPS = 50
const STEPS_BYTES = 500_000

/** A step as a page needs it to catch up: what was done, and what it wrote. */
export interface MissedStep extends Step {
  readonly commands: readonly Command[]
}

/** The steps before a revision, the latest first. */
export async function stepsBefore(within: Within, property: string, revision: number): Promise<Step[]> {
  const rows = await stepRows(within, property).where('revision', '<', revision).orderBy('revision', 'desc').execute()
  return withinBytes(rows, (r) => r.writes.length).map(stepOf)
}

/** The steps after a revision, the earliest first: as many as go into one answer. */
export async function stepsAfter(within: Within, property: string, revision: number): Promise<MissedStep[]> {
  const rows = await stepRows(within, property)
    .select((eb) => eb.cast<string>('commands', 'text').as('commands'))
    .where('revision', '>', revision)
    .orderBy('revision')
    .execute()
  return withinBytes(rows, (r) => r.writes.length + r.commands.length).map((r) => ({
    ...stepOf(r),
    commands: JSON.parse(r.commands) as Command[],
  }))
}

/** What was written comes as text, so that what does not go into the answer is never read. */
const stepRows = ({ tx, actor }: Within, property: string) =>
  tx
    .selectFrom('batches')
    .select(['id', 'revision', 'author_name', 'device', 'at', 'undoes'])
    .select((eb) => eb.cast<string>('writes', 'text').as('writes'))
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .limit(STEPS)

const stepOf = (row: {
  id: string
  revision: number
  author_name: string
  device: string
  at: Date
  undoes: string | null
  writes: string
}): Step => ({
  id: row.id,
  revision: row.revision,
  author: row.author_name,
  device: row.device,
  at: row.at.toISOString(),
  undoes: row.undoes,
  writes: JSON.parse(row.writes) as Write[],
})

function withinBytes<T>(rows: readonly T[], bytesOf: (row: T) => number): T[] {
  let bytes = 0
  return rows.filter((row, i) => {
    bytes += bytesOf(row)
    return i === 0 || bytes <= STEPS_BYTES
  })
}

/**
 * The addresses that batches after a revision wrote, up to another, oldest first; what they wrote there stays where
 * it is.
 */
export async function footprintsBetween(
  { tx, actor }: Within,
  property: string,
  after: number,
  upTo: number,
): Promise<Footprint[]> {
  return tx
    .selectFrom('batches')
    .select(['id', 'revision', sql<string[][]>`jsonb_path_query_array(writes, '$[*].path')`.as('paths')])
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .where('revision', '>', after)
    .where('revision', '<=', upTo)
    .orderBy('revision')
    .execute()
}

export async function findBatch({ tx, actor }: Within, property: string, id: string) {
  return tx
    .selectFrom('batches')
    .select(['id', 'property', 'revision', 'writes', 'commands', 'undoes'])
    .where('company', '=', actor.company)
    .where('property', '=', property)
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

/**
 * Writes a new revision: the document, its entry in the journal, and at times a snapshot. @returns the document's
 * bytes
 */
export async function storeStep({ tx, actor }: Within, site: Site, step: NewStep): Promise<number> {
  const { id, property, revision, authorName, device, at, commands, writes, undoes } = step
  const text = JSON.stringify(site)
  await wantAttention({ tx, actor }, property)
  await tx
    .updateTable('properties')
    .set({ ...columnsOf(site, revision, text), updated_at: new Date() })
    .where('company', '=', actor.company)
    .where('id', '=', property)
    .execute()
  await tx
    .insertInto('batches')
    .values({
      ...ownedBy(actor),
      id,
      property,
      revision,
      author_name: authorName,
      device,
      at: new Date(at),
      undoes,
      schema_version: SCHEMA_VERSION,
      commands: JSON.stringify(commands),
      writes: JSON.stringify(writes),
    })
    .execute()
  if (revision % SNAPSHOT_EVERY === 0) await storeSnapshot({ tx, actor }, property, revision, text)
  return text.length
}

/** The columns that follow from a property's site. */
export function columnsOf(site: Site, revision: number, text: string) {
  return {
    name: site.about.name,
    revision,
    schema_version: SCHEMA_VERSION,
    site: text,
    controllers: Object.keys(site.controllers).length,
    stations: Object.keys(site.stations).length,
  }
}

/** A step that takes back one which is not on record, or null. */
export async function undoesNothing({ tx, actor }: Within, property: string): Promise<string | null> {
  const { rows } = await sql<{ id: string }>`SELECT id FROM batches b
    WHERE company = ${actor.company} AND property = ${property} AND undoes IS NOT NULL AND NOT EXISTS (
      SELECT FROM batches u WHERE u.company = b.company AND u.property = b.property AND u.id = b.undoes) LIMIT 1`.execute(
    tx,
  )
  return rows[0]?.id ?? null
}

export async function storeSnapshot({ tx, actor }: Within, property: string, revision: number, site: string) {
  await tx
    .insertInto('snapshots')
    .values({ company: actor.company, property, revision, schema_version: SCHEMA_VERSION, site })
    .onConflict((c) => c.doNothing())
    .execute()
}

/**
 * The site as it was at a revision: the nearest snapshot before it with the batches since; null where there never was
 * one, refused where what was stored cannot be read any more.
 */
export async function readRevision(
  { tx, actor }: Within,
  property: string,
  revision: number,
): Promise<Outcome<{ revision: number; site: Site }> | null> {
  const now = await tx
    .selectFrom('properties')
    .select('revision')
    .where('company', '=', actor.company)
    .where('id', '=', property)
    .executeTakeFirst()
  const snapshot = await tx
    .selectFrom('snapshots')
    .select(['revision', 'schema_version', 'site'])
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .where('revision', '<=', revision)
    .orderBy('revision', 'desc')
    .limit(1)
    .executeTakeFirst()
  if (!now || now.revision < revision || !snapshot) return null
  const steps = await tx
    .selectFrom('batches')
    .select(['revision', 'commands'])
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .where('revision', '>', snapshot.revision)
    .where('revision', '<=', revision)
    .orderBy('revision')
    .execute()
  let site = readStoredSite(snapshot.schema_version, snapshot.site)
  for (const step of steps) {
    if (!site.ok) return site
    const next = applyBatch(site.value, step.commands)
    site = next.ok ? accepted(next.value.site) : next
  }
  return site.ok ? accepted({ revision, site: site.value }) : site
}

/** The journal in lists, for a file. */
export async function* journalSteps(within: Within, property: string): AsyncGenerator<JournalStep[]> {
  const { actor } = within
  interface Row {
    id: string
    revision: number
    author_name: string
    device: string
    at: Date
    undoes: string | null
    schema_version: number
    commands: Command[]
    writes: Write[]
  }
  const query = sql`SELECT id, revision, author_name, device, at, undoes, schema_version, commands, writes FROM batches
    WHERE company = ${actor.company} AND property = ${property} ORDER BY revision`
  for await (const rows of batchesOf<Row>(within, query, 50))
    yield rows.map(({ author_name: author, schema_version: schema, at, ...row }) => ({
      ...row,
      author,
      schema,
      at: at.toISOString(),
    }))
}

/** The snapshots one by one, for a file; one that cannot be read any more is left out. */
export async function* journalSnapshots(within: Within, property: string): AsyncGenerator<Snapshot[]> {
  const { actor } = within
  const query = sql`SELECT revision, schema_version, site FROM snapshots
    WHERE company = ${actor.company} AND property = ${property} ORDER BY revision`
  for await (const rows of batchesOf<{ revision: number; schema_version: number; site: unknown }>(within, query, 1)) {
    const { revision, schema_version, site } = rows[0]!
    const read = readStoredSite(schema_version, site)
    if (read.ok) yield [{ revision, schema: SCHEMA_VERSION, site: read.value }]
  }
}
