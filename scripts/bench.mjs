import { ensureModules } from './lib/modules.mjs'
import { ensurePackages } from './lib/packages.mjs'
import { giveUp, openly } from './lib/plain.mjs'
import { startCluster } from './lib/postgres.mjs'
import { prepareDatabase } from './lib/server.mjs'

// A benchmark with an empty database of its own: node scripts/bench.mjs lists [--json]. Answers on standard output only.
const [name, ...rest] = process.argv.slice(2)
ensureModules((line) => console.error(line))
ensurePackages(['postgresql'])
const cluster = await startCluster('bench', { fresh: true, durable: false })
const trouble = prepareDatabase(cluster.url, { demo: false })
if (trouble !== null) giveUp(trouble, 1)
const code = await openly(process.execPath, ['--import', 'tsx', `bench/${name}.ts`, ...rest], { env: { ...process.env, DATABASE_URL: cluster.url } })
await cluster.stop()
process.exit(code)
