import { sql } from 'kysely'
import { ownerMissing, type Property, type PropertyHead, type PropertyPart } from '../../core/formats'
import { factKinds, kindOf, type AnyFact } from '../../core/record'
import { accepted, refusal, refused, type Outcome } from '../../core/refusal'
import { ownedBy, type Within } from './actor'
import { wantAttention } from './attention'
import { hangingOnNothing, insertFacts, type NewFact } from './facts'
import { columnsOf, storeSnapshot, undoesNothing } from './journal'

/** Facts stored in one statement. */
const AT_ONCE = 1000

/** Begins a property that is not on record yet; false where its id is taken. */
export async function beginProperty(
  { tx, actor }: Within,
  { id, revision, site }: Pick<PropertyHead, 'id' | 'revision' | 'site'>,
): Promise<boolean> {
  const made = await tx
    .insertInto('properties')
    .values({ id, ...ownedBy(actor), ...columnsOf(site, revision, JSON.stringify(site)) })
    .onConflict((c) => c.doNothing())
    .returning('id')
    .executeTakeFirst()
  if (made) await wantAttention({ tx, actor }, id)
  return made !== undefined
}

/**
 * Stores the parts of a property that was begun, in whatever order they come; refused with the first that cannot be,
 * and then nothing may be committed. Its past begins with what the file brings of it, or with now.
 */
export async function storeParts(
  within: Within,
  { id, revision, site }: Pick<PropertyHead, 'id' | 'revision' | 'site'>,
  parts: AsyncIterable<Outcome<PropertyPart>>,
): Promise<Outcome<number>> {
  const { tx, actor } = within
  await sql`SET CONSTRAINTS ALL DEFERRED`.execute(tx)
  let [count, waiting] = [0, [] as NewFact[]]
  const flush = async () => {
    if (waiting.length > 0) await insertFacts(within, id, waiting)
    waiting = []
  }
  for await (const part of parts) {
    if (!part.ok) return part
    count++
    const { value } = part
    if (value.kind === 'fact') {
      waiting.push({ kind: value.of, id: value.id, fact: value.fact })
      if (waiting.length >= AT_ONCE) await flush()
    } else if (value.kind === 'snapshot')
      await storeSnapshot(within, id, value.snapshot.revision, JSON.stringify(value.snapshot.site))
    else {
      const { author, schema, commands, writes, at, ...step } = value.step
      const made = await tx
        .insertInto('batches')
        .values({
          ...step,
          ...ownedBy(actor),
          property: id,
          author_name: author,
          at: new Date(at),
          schema_version: schema,
          commands: JSON.stringify(commands),
          writes: JSON.stringify(writes),
        })
        .onConflict((c) => c.doNothing())
        .returning('id')
        .executeTakeFirst()
      if (!made) return refused(refusal('id_taken', ['journal', 'steps', step.id]))
    }
  }
  await flush()
  await storeSnapshot(within, id, revision, JSON.stringify(site))
  const undone = await undoesNothing(within, id)
  if (undone) return refused(refusal('no_such_batch', ['journal', 'steps', undone, 'undoes']))
  const lost = await hangingOnNothing(within, id)
  if (lost.length > 0)
    return refused(...lost.map((f) => ownerMissing(kindOf(f.kind).collection, f.id, kindOf(f.kind).owner!, f.owner)))
  return accepted(count)
}

/** Stores a property that is in memory, whole; false where its id is taken. */
export async function storeProperty(within: Within, property: Property): Promise<boolean> {
  if (!(await beginProperty(within, property))) return false
  const stored = await storeParts(within, property, partsOf(property))
  if (!stored.ok) throw new Error(`storeProperty: ${JSON.stringify(stored.refusals)}`)
  return true
}

async function* partsOf({ facts }: Property): AsyncGenerator<Outcome<PropertyPart>> {
  for (const of of factKinds)
    for (const [id, fact] of Object.entries(facts[kindOf(of).collection] as Record<string, AnyFact>))
      yield accepted({ kind: 'fact', of, id, fact })
}
