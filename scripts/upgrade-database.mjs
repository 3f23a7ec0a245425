import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { dump, fill } from './lib/archive.mjs'
import { giveUp, say } from './lib/plain.mjs'
import { dataVersionOf, renewCluster, startCluster } from './lib/postgres.mjs'
import { newestPostgres } from './lib/packages.mjs'

// npm run upgrade-database: the data taken over into the newest PostgreSQL that is installed. The former cluster is
// kept.

const [before, newest] = [dataVersionOf('main'), newestPostgres()]
if (before === null) giveUp('There is no data here yet.', 0)
if (before === newest && !process.argv.includes('--anyway')) giveUp(`The data is of PostgreSQL ${newest} already.`, 0)
const folder = mkdtempSync(join(tmpdir(), 'field-thread-upgrade-'))
const file = join(folder, 'all.backup')
const old = await startCluster('main')
const written = dump(old.url, file)
await old.stop()
if (written !== null) giveUp(`The data could not be written out; it stays as it is.\n${written}`, 1)
const { keptAs, back } = renewCluster('main')
const fresh = await startCluster('main')
const trouble = fill(fresh.url, file)
await fresh.stop()
rmSync(folder, { recursive: true, force: true })
if (trouble !== null) {
  back()
  giveUp(`The data could not be read in; it stays as it was.\n${trouble}`, 1)
}
say(`The data is of PostgreSQL ${newest} now. What was there before is kept in ${keptAs}.`)
