import { readFileSync } from 'node:fs'
import { Migrator } from 'kysely'
import { readProperty } from '../../core/formats'
import { openDatabase, type Database } from './database'
import { first } from './migrations/0001-first'
import { pictures } from './migrations/0002-pictures'
import { findings } from './migrations/0003-findings'
import { storeProperty } from './properties'

const MIGRATIONS = { '0001-first': first, '0002-pictures': pictures, '0003-findings': findings }
const DEMO_FILE = new URL('../../demo/quarry-lake.json', import.meta.url)

/** Loads the demo the first time only: a demo that was taken away stays away. */
async function loadDemo(db: Database): Promise<void> {
  if (await db.selectFrom('markers').select('name').where('name', '=', 'demo').executeTakeFirst()) return
  const demo = readProperty(readFileSync(DEMO_FILE, 'utf8'))
  if (!demo.ok) throw new Error(`the demo file is broken: ${JSON.stringify(demo.refusals)}`)
  await storeProperty(db, demo.value)
  await db.insertInto('markers').values({ name: 'demo' }).execute()
}

const db = openDatabase(process.env.DATABASE_URL ?? '')
try {
  const { error } = await new Migrator({
    db,
    provider: { getMigrations: () => Promise.resolve(MIGRATIONS) },
  }).migrateToLatest()
  if (error) throw error
  if (process.argv.includes('--demo')) await loadDemo(db)
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  process.exitCode = 1
} finally {
  await db.destroy()
}
