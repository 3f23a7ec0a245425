import { sql, type Kysely } from 'kysely'
import type { Database } from './database'
import { DEFAULT_COMPANY, DEFAULT_USER, type Tables } from './tables'

/** For whom a query is made: a company, whose rows alone it sees, and the person who asks. */
export interface Actor {
  readonly company: string
  readonly person: string
}

/** Everybody, until there are accounts. */
export const DEFAULT_ACTOR: Actor = {
  company: DEFAULT_COMPANY,
  person: DEFAULT_USER,
}

/** A transaction with the actor it is made for: what every query of this folder takes. */
export interface Within {
  readonly tx: Kysely<Tables>
  readonly actor: Actor
}

/** The role that policies hold for, whoever is connected; null where none was made. Asked once a pool. */
const workingRoles = new WeakMap<Database, Promise<string | null>>()

async function workingRole(db: Database): Promise<string | null> {
  const { rows } = await sql<{ may: boolean }>`
    SELECT coalesce(pg_has_role(current_user, oid, 'MEMBER'), false) AS may
    FROM pg_roles WHERE rolname = 'fieldthread_app'`.execute(db)
  return rows[0]?.may ? 'fieldthread_app' : null
}

/**
 * Runs work in one transaction as an actor: the database itself shows rows of the actor's company only.
 * @param isolation `repeatable read` where several queries must see one moment
 */
export async function actingAs<T>(
  db: Database,
  actor: Actor,
  work: (within: Within) => Promise<T>,
  isolation: 'read committed' | 'repeatable read' = 'read committed',
): Promise<T> {
  if (!workingRoles.has(db)) {
    const asked = workingRole(db)
    workingRoles.set(db, asked)
    asked.catch(() => workingRoles.delete(db)) // the database was away: ask again next time
  }
  const role = await workingRoles.get(db)!
  return db.connection().execute(async (tx) => {
    // Without parameters, so that beginning and saying who asks are one way to the database and back.
    const level = sql.raw(isolation)
    const who = sql`set_config('fieldthread.company', ${sql.lit(actor.company)}, true)`
    const as = role === null ? sql`` : sql`, set_config('role', ${sql.lit(role)}, true)`
    await sql`BEGIN ISOLATION LEVEL ${level}; SELECT ${who}${as}`.execute(tx)
    try {
      const result = await work({ tx, actor })
      await sql`COMMIT`.execute(tx)
      return result
    } catch (error) {
      await sql`ROLLBACK`.execute(tx).catch(() => {
        /* the connection is gone, and with it the transaction */
      })
      throw error
    }
  })
}

/** The columns that say whose a row is. */
export const ownedBy = ({ company, person }: Actor) => ({ company, author: person })
