import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'kysely'
import { openDatabase } from './db/database'

/** Every row of every table, as one figure a table. */
async function contents(url: string): Promise<Record<string, string>> {
  const db = openDatabase(url)
  const { rows } = await sql<{
    name: string
  }>`SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public' ORDER BY 1`.execute(db)
  const sums: Record<string, string> = {}
  for (const { name } of rows) {
    const { rows: one } = await sql<{
      sum: string
    }>`SELECT count(*) || ' ' || md5(coalesce(string_agg(md5(t::text), '' ORDER BY md5(t::text)), '')) AS sum FROM ${sql.table(name)} t`.execute(
      db,
    )
    sums[name] = one[0]!.sum
  }
  await db.destroy()
  return sums
}

test('a backup put back holds every row of every table, and what stood in its place is kept', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'backup-'))
  const file = join(folder, 'all.backup')
  const live = new URL(process.env.DATABASE_URL!)
  const other = new URL(live)
  other.pathname = '/restore_here'
  const admin = openDatabase(live.href)
  await sql`DROP DATABASE IF EXISTS restore_here`.execute(admin)
  await sql`CREATE DATABASE restore_here`.execute(admin)
  const run = (script: string, url: URL) =>
    spawnSync(process.execPath, [`scripts/${script}.mjs`, file], {
      encoding: 'utf8',
      env: { ...process.env, DATABASE_URL: url.href },
    })
  // The server works out what asks for somebody beside everything else: a copy is compared with what stood meanwhile.
  let before: Record<string, string>
  let after: Record<string, string>
  do {
    rmSync(file, { force: true })
    before = await contents(live.href)
    const made = run('backup', live)
    expect([made.status, made.stderr]).toEqual([0, ''])
    after = await contents(live.href)
  } while (JSON.stringify(after) !== JSON.stringify(before))
  expect(run('backup', live)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('is there already') as string,
  })
  const put = run('restore', other)
  expect([put.status, put.stderr]).toEqual([0, ''])
  expect(await contents(other.href)).toEqual(before)
  expect(Number(before.facts!.split(' ')[0])).toBeGreaterThan(100)
  const keptAs = /kept as the database (\S+)\./.exec(put.stdout)![1]!
  const { rows } = await sql<{
    n: number
  }>`SELECT count(*)::int AS n FROM pg_database WHERE datname = ${keptAs}`.execute(admin)
  expect(rows[0]!.n).toBe(1)
  for (const name of ['restore_here', keptAs]) await sql`DROP DATABASE ${sql.id(name)}`.execute(admin)
  await admin.destroy()
  rmSync(folder, { recursive: true })
}, 300_000)
