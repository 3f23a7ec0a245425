import { Migrator } from 'kysely'
import type { Database } from './database'
import { first } from './migrations/0001-first'
import { pictures } from './migrations/0002-pictures'
import { findings } from './migrations/0003-findings'
import { oneTableOfFacts } from './migrations/0004-one-table-of-facts'
import { jobsInVisits } from './migrations/0005-jobs-in-visits'
import { procedures } from './migrations/0006-procedures'
import { office } from './migrations/0007-office'
import { list } from './migrations/0008-list'
import { countedAnew } from './migrations/0009-counted-anew'

/** One that has landed is never edited: databases that ran it would differ from those that run it now. */
export const MIGRATIONS = {
  '0001-first': first,
  '0002-pictures': pictures,
  '0003-findings': findings,
  '0004-one-table-of-facts': oneTableOfFacts,
  '0005-jobs-in-visits': jobsInVisits,
  '0006-procedures': procedures,
  '0007-office': office,
  '0008-list': list,
  '0009-counted-anew': countedAnew,
}

/** Brings a database to the present tables. @throws what stood in the way, with nothing changed by that step */
export async function migrate(db: Database): Promise<void> {
  const provider = { getMigrations: () => Promise.resolve(MIGRATIONS) }
  const { error } = await new Migrator({ db, provider }).migrateToLatest()
  if (error) throw error
}
