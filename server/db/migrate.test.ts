import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { sql } from 'kysely'
import { factsSchema, SCHEMA_VERSION } from '../../core/record'
import { valueAt } from '../../core/site'
import { receiveAll } from '../utils/receive'
import { actingAs, DEFAULT_ACTOR, type Within } from './actor'
import { nextWanted } from './attention'
import { openDatabase, type Database } from './database'
import { readFacts } from './facts'
import { readRevision, stepsBefore } from './journal'
import { listProperties, type ListQuery } from './listing'
import { migrate, MIGRATIONS } from './migrate'
import { presentSite } from './sites'

const KEPT = join(__dirname, '../../tests/kept')
const LAWN: ListQuery = {
  find: 'lawn',
  need: null,
  sort: 'name',
  down: false,
  offset: 0,
  limit: 9,
  archived: false,
  today: '2026-12-01',
}
const PROPERTY = '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99'

/** A database of its own beside the one under test, gone when the work is done. */
async function inOwnDatabase<T>(name: string, work: (db: Database) => Promise<T>): Promise<T> {
  const server = openDatabase(process.env.DATABASE_URL!)
  const url = new URL(process.env.DATABASE_URL!)
  url.pathname = `/${name}`
  await sql`DROP DATABASE IF EXISTS ${sql.id(name)}`.execute(server)
  await sql`CREATE DATABASE ${sql.id(name)}`.execute(server)
  const db = openDatabase(url.href)
  try {
    return await work(db)
  } finally {
    await db.destroy()
    await sql`DROP DATABASE ${sql.id(name)}`.execute(server)
    await server.destroy()
  }
}

const kept = readdirSync(KEPT).filter((name) => name.endsWith('.sql'))

test.each(kept)(
  'a database as it was left by an earlier one (%s) is brought up to date: nothing of it is lost or stuck',
  async (name) => {
    await inOwnDatabase('kept_upgrade', async (db) => {
      await sql.raw(readFileSync(join(KEPT, name), 'utf8')).execute(db)
      await migrate(db)
      const within = <T>(work: (w: Within) => Promise<T>) => actingAs(db, DEFAULT_ACTOR, work)
      // What asks for somebody is worked out anew of everything that is there; what was known of it stands meanwhile.
      expect(await within((w) => nextWanted(w, 0))).toMatchObject({ property: PROPERTY })
      if (name >= 'database-7') expect(await within((w) => listProperties(w, LAWN))).toMatchObject({ total: 1 })
      const present = await within((w) => presentSite(w, PROPERTY))
      expect(present).toMatchObject({ ok: true, value: { revision: 53 } })
      const facts = await within((w) => readFacts(w, PROPERTY))
      const counts = Object.fromEntries(
        Object.entries(facts).flatMap(([name, of]) =>
          Object.keys(of).length > 0 ? [[name, Object.keys(of).length]] : [],
        ),
      )
      const hunted = name >= 'database-4'
      const [acceptances, findings] = [name >= 'database-1b' ? 1 : 0, hunted ? 3 : name >= 'database-3' ? 1 : 0]
      const visits = hunted ? 2 : 1
      expect(counts).toEqual({
        ...{ visits, jobs: visits, readings: visits + 1, strikeOuts: 1, cautions: 1, closings: 1 },
        ...(acceptances > 0 && { acceptances }),
        ...(findings > 0 && { findings }),
      })
      expect(Object.values(facts.readings).map((r) => r.value.kind)).toEqual(
        hunted ? ['ohm', 'open', 'open'] : ['ohm', 'open'],
      )
      // What was spent on a hunt shows by what was found or tried there.
      const kinds = [findings > 0 ? 'hunt' : 'sweep', 'hunt'].slice(0, visits)
      expect(Object.values(facts.jobs).map((j) => j.kind)).toEqual(kinds)
      if (hunted) {
        expect(Object.values(facts.findings).map((f) => f.where)).toEqual([
          { kind: 'coil', device: 'V1' },
          { kind: 'run', cable: 'k', core: 'white', from: 's1', to: 's2' },
          null,
        ])
      }
      expect(factsSchema.parse(facts)).toEqual(facts)
      const nameAt = async (revision: number) => {
        const found = await within((w) => readRevision(w, PROPERTY, revision))
        return found?.ok ? (valueAt(found.value.site, ['stations', 'one']) as { name: string }).name : found
      }
      for (const revision of [1, 25, 49, 50, 51, 52]) expect(await nameAt(revision)).toBe(`Bed ${revision}`)
      expect(await nameAt(53)).toBe('Bed 51')
      const steps = await within((w) => stepsBefore(w, PROPERTY, 54))
      const undo = {
        id: '0198f2a0-0000-7000-8000-00000000ffff',
        schema: SCHEMA_VERSION,
        property: PROPERTY,
        author: '',
        device: '',
        at: '2026-03-02T10:00:00.000Z',
        body: { kind: 'undo', undoes: steps[0]!.id },
      }
      expect(await receiveAll(db, DEFAULT_ACTOR, PROPERTY, [undo, undo])).toMatchObject([
        { status: 'accepted', revision: 54 },
        { status: 'already' },
      ])
      expect(await nameAt(54)).toBe('Bed 52')
    })
  },
)

test('a migration that has landed is never edited; what changes it is another one', () => {
  const folder = join(__dirname, 'migrations')
  const hashes = readdirSync(folder).map((file) => [
    file.replace('.ts', ''),
    createHash('sha256')
      .update(readFileSync(join(folder, file)))
      .digest('hex')
      .slice(0, 16),
  ])
  expect(Object.fromEntries(hashes)).toEqual({
    '0001-first': '3bd2702e1745627f',
    '0002-pictures': 'cb1e1bfef92022db',
    '0003-findings': 'e6316ee4c83a93e9',
    '0004-one-table-of-facts': '767565b1d4cc56bd',
    '0005-jobs-in-visits': '9347377c08425c2f',
    '0006-procedures': '449914283d34eb8c',
    '0007-office': '69169a86179687fc',
    '0008-list': 'c73ec8fa207570d6',
    '0009-counted-anew': 'a325bb22d69bf64f',
  })
  expect(Object.keys(MIGRATIONS)).toEqual(hashes.map(([name]) => name))
  // Each state that a database was ever left in is kept: the first migration once was another one.
  expect(kept).toHaveLength(Object.keys(MIGRATIONS).length)
})
