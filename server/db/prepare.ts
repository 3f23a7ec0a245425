import { readFileSync } from 'node:fs'
import { readProperty } from '../../core/formats'
import { actingAs, DEFAULT_ACTOR } from './actor'
import { openDatabase, type Database } from './database'
import { storeProperty } from './intake'
import { migrate } from './migrate'

const DEMO_FILE = new URL('../../demo/quarry-lake.json', import.meta.url)

/** Loads the demo the first time only: a demo that was taken away stays away. */
async function loadDemo(db: Database): Promise<void> {
  if (await db.selectFrom('markers').select('name').where('name', '=', 'demo').executeTakeFirst()) return
  const demo = readProperty(readFileSync(DEMO_FILE, 'utf8'))
  if (!demo.ok) throw new Error(`the demo file is broken: ${JSON.stringify(demo.refusals)}`)
  await actingAs(db, DEFAULT_ACTOR, (within) => storeProperty(within, demo.value))
  await db.insertInto('markers').values({ name: 'demo' }).execute()
}

const db = openDatabase(process.env.DATABASE_URL ?? '')
try {
  await migrate(db)
  if (process.argv.includes('--demo')) await loadDemo(db)
} catch (error) {
  console.error(error instanceof Error ? error.message : error)
  process.exitCode = 1
} finally {
  await db.destroy()
}
