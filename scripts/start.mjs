import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuild } from './lib/build.mjs'
import { ensureModules } from './lib/modules.mjs'
import { ensurePackages } from './lib/packages.mjs'
import { CLONE, giveUp, say, wait } from './lib/plain.mjs'
import { isFree } from './lib/ports.mjs'
import { startCluster } from './lib/postgres.mjs'
import { end, lives } from './lib/processes.mjs'
import { isWell, prepareDatabase, SERVER, startServer } from './lib/server.mjs'

const NOTES = join(CLONE, '.data', 'running.json')
/** A part that dies more often than this within a minute is broken, not unlucky. */
const MOST_RESTARTS = 5

const port = Number(process.env.PORT ?? 4747)
if (!Number.isInteger(port) || port < 1 || port > 65535) giveUp(`PORT is “${process.env.PORT}”, not a port number. Use 1 to 65535.`)
const address = `http://127.0.0.1:${port}/`

await leaveOrTakeOver()
if (!await isFree(port)) giveUp(`Port ${port} is in use by another program. Stop that program, or choose another port: PORT=${port + 1} npm start`)
mkdirSync(join(CLONE, '.data'), { recursive: true })
note({ pid: process.pid, address })

let stopping = false
let cluster = null
let server = null
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0))

ensureModules()
if (!process.env.DATABASE_URL) ensurePackages(['postgresql'])
ensureBuild()
if (!process.env.DATABASE_URL) {
  say('Starting the database …')
  cluster = await startCluster('main')
}
const url = process.env.DATABASE_URL ?? cluster.url
const trouble = prepareDatabase(url, { demo: true })
if (trouble !== null) await fail(`The database could not be prepared.\n${trouble}`)
await serve()
say(`Field Thread is ready: ${address}   (Ctrl-C stops it)`)
if (cluster) void watchCluster()

/** Keeps the server up: one that dies is started again, and what the page had not sent yet it sends then. */
async function serve() {
  server = startServer(url, port)
  note({ pid: process.pid, address, server: server.child.pid })
  const { child } = server
  if (!await isWell(port, child)) await fail('The server did not start; what it printed is above.')
  child.once('exit', () => { if (!stopping) void again('server', serve) })
}

async function watchCluster() {
  while (!stopping) {
    await wait(1000)
    if (!stopping && !cluster.alive()) await again('database', async () => {
      const before = cluster.port
      cluster = await startCluster('main', { port: before })
    })
  }
}

const restarts = []
async function again(what, start) {
  restarts.push(Date.now())
  if (restarts.filter((at) => at > Date.now() - 60_000).length > MOST_RESTARTS) await fail(`The ${what} keeps stopping. Look at what was printed above, then start again.`)
  say(`The ${what} stopped; starting it again …`)
  await start()
}

async function fail(sentence) {
  console.error(sentence)
  await stop(1)
}

async function stop(code) {
  if (stopping) return
  stopping = true
  say('Stopping …')
  await server?.stop()
  await cluster?.stop()
  rmSync(NOTES, { force: true })
  process.exit(code)
}

function note(what) { writeFileSync(NOTES, JSON.stringify(what)) }

/** Says where another copy of this clone runs; ends a server whose start was killed. */
async function leaveOrTakeOver() {
  if (!existsSync(NOTES)) return
  let left
  try { left = JSON.parse(readFileSync(NOTES, 'utf8')) } catch { return }
  if (left.pid !== process.pid && lives(left.pid, 'start.mjs')) giveUp(`Field Thread already runs from this folder: ${left.address}`)
  if (left.server) await end(left.server, SERVER)
}
