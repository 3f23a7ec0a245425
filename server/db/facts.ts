import { sql } from 'kysely'
import {
  factKinds,
  kindOf,
  ownerIdOf,
  SCHEMA_VERSION,
  type AnyFact,
  type FactKind,
  type Facts,
} from '../../core/record'
import type { Within } from './actor'
import { batchesOf } from './cursor'

/*
 * A version that changes what facts look like comes with a migration that rewrites those on record; so they are read as
 * they stand.
 */

/** A fact to be stored, under its id. */
export interface NewFact {
  readonly kind: FactKind
  readonly id: string
  readonly fact: AnyFact
}

const keyOf = (kind: string, id: string) => `${kind} ${id}`

/** Facts by kind and id. */
export class FoundFacts {
  private readonly byKey = new Map<string, AnyFact>()
  add(kind: FactKind, id: string, fact: AnyFact): void {
    this.byKey.set(keyOf(kind, id), fact)
  }
  get(kind: FactKind, id: string): AnyFact | undefined {
    return this.byKey.get(keyOf(kind, id))
  }
}

interface Named {
  readonly kind: FactKind
  readonly id: string
}

/** Those of the named facts that are on record. */
export async function findFacts(within: Within, property: string, wanted: readonly Named[]): Promise<FoundFacts> {
  return (await findPropertyAndFacts(within, property, wanted))?.found ?? new FoundFacts()
}

/** The property's revision with those of the named facts that are on record, in one way to the database and back. */
export async function findPropertyAndFacts(
  { tx, actor }: Within,
  property: string,
  wanted: readonly Named[],
): Promise<{ revision: number; found: FoundFacts } | null> {
  type Row = [kind: FactKind, id: string, fact: AnyFact]
  const { rows } = await sql<{ revision: number; found: Row[] | null }>`
    SELECT p.revision, (
      SELECT jsonb_agg(jsonb_build_array(f.kind, f.id, f.fact))
      FROM unnest(${wanted.map((w) => w.kind)}::text[], ${wanted.map((w) => w.id)}::text[]) AS w (kind, id)
      JOIN facts f ON f.company = p.company AND f.property = p.id AND f.kind = w.kind AND f.id = w.id) AS found
    FROM properties p WHERE p.company = ${actor.company} AND p.id = ${property}`.execute(tx)
  const [row] = rows
  if (!row) return null
  const found = new FoundFacts()
  for (const [kind, id, fact] of row.found ?? []) found.add(kind, id, fact)
  return { revision: row.revision, found }
}

/**
 * Adds facts in one statement, and notes that the list is to look anew.
 * @returns the keys of those that were not there yet
 */
export async function insertFacts(
  { tx, actor }: Within,
  property: string,
  facts: readonly NewFact[],
): Promise<(kind: FactKind, id: string) => boolean> {
  const rows = facts.map(({ kind, id, fact }) => ({
    kind,
    id,
    owner_kind: kindOf(kind).owner?.kind ?? null,
    owner: ownerIdOf(kind, fact),
    at: fact.at,
    fact,
  }))
  const { rows: made } = await sql<{ kind: string; id: string }>`
    WITH noted AS (
      INSERT INTO attention_wanted (company, property) VALUES (${actor.company}, ${property}))
    INSERT INTO facts (company, property, kind, id, owner_kind, owner, author, at, schema_version, fact)
    SELECT ${actor.company}, ${property}, kind, id, owner_kind, owner, ${actor.person}, at, ${SCHEMA_VERSION}, fact
    FROM jsonb_to_recordset(${JSON.stringify(rows)}::jsonb)
      AS r (kind text, id text, owner_kind text, owner text, at timestamptz, fact jsonb)
    ON CONFLICT DO NOTHING RETURNING kind, id`.execute(tx)
  const keys = new Set(made.map((m) => keyOf(m.kind, m.id)))
  return (kind, id) => keys.has(keyOf(kind, id))
}

/**
 * Facts that hang on something that is not on record; the first of them. Asked right after many were written, when the
 * database thinks of the table as it was before: a nested loop would then take the square of their number.
 */
export async function hangingOnNothing({ tx, actor }: Within, property: string) {
  await sql`SET LOCAL enable_nestloop = off`.execute(tx)
  const { rows } = await sql<{ kind: FactKind; id: string; owner: string }>`
    SELECT f.kind, f.id, f.owner FROM facts f
    WHERE f.company = ${actor.company} AND f.property = ${property} AND f.owner IS NOT NULL AND NOT EXISTS (
      SELECT FROM facts o WHERE o.company = f.company AND o.property = f.property
        AND o.kind = f.owner_kind AND o.id = f.owner) LIMIT 20`.execute(tx)
  await sql`SET LOCAL enable_nestloop = on`.execute(tx)
  return rows
}

/** The controllers that jobs were done at: none of them may leave the site while its jobs stand. */
export async function controllersWorkedOn({ tx, actor }: Within, property: string): Promise<string[]> {
  const rows = await tx
    .selectFrom('facts')
    .select(sql<string>`fact->>'controller'`.as('controller'))
    .distinct()
    .where('company', '=', actor.company)
    .where('property', '=', property)
    .where('kind', '=', 'job')
    .execute()
  return rows.map((r) => r.controller)
}

/** The order of keys in a file (`byKey`), in the database's words. */
const IN_FILE_ORDER = sql`(id ~ '^(0|[1-9][0-9]{0,8})$') DESC,
  CASE WHEN id ~ '^(0|[1-9][0-9]{0,8})$' THEN length(id) ELSE 0 END, id COLLATE "C"`

/** All facts of a kind in lists, in the order of a file. */
export async function* factsOf(
  within: Within,
  property: string,
  kind: FactKind,
): AsyncGenerator<(readonly [string, AnyFact])[]> {
  const { actor } = within
  const query = sql`SELECT id, fact FROM facts
    WHERE company = ${actor.company} AND property = ${property} AND kind = ${kind} ORDER BY ${IN_FILE_ORDER}`
  for await (const rows of batchesOf<{ id: string; fact: AnyFact }>(within, query))
    yield rows.map((r) => [r.id, r.fact] as const)
}

/** All facts of a property, in memory: for whoever computes with them. */
export async function readFacts(within: Within, property: string): Promise<Facts> {
  const facts: Record<string, Record<string, AnyFact>> = {}
  for (const kind of factKinds) {
    const collection: [string, AnyFact][] = []
    for await (const list of factsOf(within, property, kind)) for (const [id, fact] of list) collection.push([id, fact])
    facts[kindOf(kind).collection] = Object.fromEntries(collection)
  }
  return facts as unknown as Facts
}
