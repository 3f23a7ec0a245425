import type { Procedure } from '../../core/record'
import { sameJson } from '../../core/site'
import { ownedBy, type Within } from './actor'

/** A company keeps no more procedures of its own than this. */
export const MOST_PROCEDURES = 500

export interface OwnProcedure {
  readonly revision: number
  readonly procedure: Procedure
}

/** What became of a change: done, with the revision it made; or what it began from is no longer what is there. */
export type ProcedureChange =
  { readonly kind: 'done'; readonly revision: number } | { readonly kind: 'changed_since' } | { readonly kind: 'full' }

/** The company’s own procedures by name. */
export async function ownProcedures({ tx, actor }: Within): Promise<OwnProcedure[]> {
  return tx
    .selectFrom('procedures')
    .select(['revision', 'procedure'])
    .where('company', '=', actor.company)
    .orderBy('id')
    .execute()
}

const one = async ({ tx, actor }: Within, id: string): Promise<OwnProcedure | null> =>
  (await tx
    .selectFrom('procedures')
    .select(['revision', 'procedure'])
    .where('company', '=', actor.company)
    .where('id', '=', id)
    .forUpdate()
    .executeTakeFirst()) ?? null

/**
 * Keeps a procedure in place of the revision it began from, 0 for a new one. Sent again it is done already.
 */
export async function keepProcedure(within: Within, base: number, procedure: Procedure): Promise<ProcedureChange> {
  const { tx, actor } = within
  const there = await one(within, procedure.id)
  if (there && sameJson(there.procedure, procedure)) return { kind: 'done', revision: there.revision }
  if ((there?.revision ?? 0) !== base) return { kind: 'changed_since' }
  const text = JSON.stringify(procedure)
  if (there) {
    await tx
      .updateTable('procedures')
      .set({ revision: base + 1, procedure: text, author: actor.person, updated_at: new Date() })
      .where('company', '=', actor.company)
      .where('id', '=', procedure.id)
      .execute()
    return { kind: 'done', revision: base + 1 }
  }
  const { count } = await tx
    .selectFrom('procedures')
    .select(({ fn }) => fn.countAll<string>().as('count'))
    .where('company', '=', actor.company)
    .executeTakeFirstOrThrow()
  if (Number(count) >= MOST_PROCEDURES) return { kind: 'full' }
  const made = await tx
    .insertInto('procedures')
    .values({ ...ownedBy(actor), id: procedure.id, revision: 1, procedure: text })
    .onConflict((c) => c.doNothing())
    .returning('id')
    .executeTakeFirst()
  return made ? { kind: 'done', revision: 1 } : { kind: 'changed_since' }
}

/** Takes a procedure off where it is still at a revision; one that is gone is off already. */
export async function removeProcedure(within: Within, id: string, base: number): Promise<ProcedureChange> {
  const there = await one(within, id)
  if (!there) return { kind: 'done', revision: 0 }
  if (there.revision !== base) return { kind: 'changed_since' }
  const { tx, actor } = within
  await tx.deleteFrom('procedures').where('company', '=', actor.company).where('id', '=', id).execute()
  return { kind: 'done', revision: 0 }
}
