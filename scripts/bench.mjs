import { ensureModules } from './lib/modules.mjs'
import { ensurePackages } from './lib/packages.mjs'
import { giveUp, openly } from './lib/plain.mjs'
import { startCluster } from './lib/postgres.mjs'
import { prepareDatabase } from './lib/server.mjs'

// A benchmark: node scripts/bench.mjs NAME [--json]. Answers on standard output only; one that needs a database gets
// an empty one.
const NEEDS = {
  lists: ['postgresql'],
  circuit: ['ngspice'],
  sizing: [],
  hunt: [],
  trace: [],
  live: [],
  path: ['ngspice'],
  schedule: [],
  sequencer: [],
  repair: [],
  quote: [],
  walk: [],
}
const [name, ...rest] = process.argv.slice(2)
if (!Object.hasOwn(NEEDS, name ?? '')) giveUp(`Name a benchmark: ${Object.keys(NEEDS).join(', ')}.`)
ensureModules((line) => console.error(line))
ensurePackages(NEEDS[name])
const cluster = NEEDS[name].includes('postgresql') ? await startCluster('bench', { fresh: true, durable: false }) : null
const trouble = cluster && prepareDatabase(cluster.url, { demo: false })
if (trouble) giveUp(trouble, 1)
const code = await openly(process.execPath, ['--import', 'tsx', `bench/${name}.ts`, ...rest], {
  env: { ...process.env, ...(cluster && { DATABASE_URL: cluster.url }) },
})
await cluster?.stop()
process.exit(code)
