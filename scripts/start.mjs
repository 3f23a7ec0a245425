import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuild } from './lib/build.mjs'
import { ensureModules } from './lib/modules.mjs'
import { ensurePackages } from './lib/packages.mjs'
import { CLONE, giveUp, say } from './lib/plain.mjs'
import { isFree } from './lib/ports.mjs'
import { end, lives } from './lib/processes.mjs'
import { SERVER } from './lib/server.mjs'
import { supervise } from './lib/supervise.mjs'

const NOTES = join(CLONE, '.data', 'running.json')

const port = Number(process.env.PORT ?? 4747)
if (!Number.isInteger(port) || port < 1 || port > 65535)
  giveUp(`PORT is “${process.env.PORT}”, not a port number. Use 1 to 65535.`)
const address = `http://127.0.0.1:${port}/`

await leaveOrTakeOver()
if (!(await isFree(port)))
  giveUp(
    `Port ${port} is in use by another program. Stop that program, or choose another port: PORT=${port < 65535 ? port + 1 : port - 1} npm start`,
  )
mkdirSync(join(CLONE, '.data'), { recursive: true })
note({})

let stopping = false
let running = null
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0))

const url = process.env.DATABASE_URL || null
ensureModules()
if (!url) ensurePackages(['postgresql'])
ensureBuild()
if (!url) say('Starting the database …')
running = supervise({
  cluster: url ? null : ['main'],
  url,
  port,
  demo: true,
  note,
  fail: async (sentence) => {
    console.error(sentence)
    await stop(1)
  },
})
await running.ready
if (!stopping) say(`Field Thread is ready: ${address}   (Ctrl-C stops it)`)

async function stop(code) {
  if (stopping) return
  stopping = true
  say('Stopping …')
  await running?.stop()
  rmSync(NOTES, { force: true })
  process.exit(code)
}

function note(pids) {
  writeFileSync(NOTES, JSON.stringify({ pid: process.pid, address, ...pids }))
}

/** Says where another copy of this clone runs; ends a server whose start was killed. */
async function leaveOrTakeOver() {
  if (!existsSync(NOTES)) return
  let left
  try {
    left = JSON.parse(readFileSync(NOTES, 'utf8'))
  } catch {
    return
  }
  if (left.pid !== process.pid && lives(left.pid, 'start.mjs'))
    giveUp(`Field Thread already runs from this folder: ${left.address}`)
  if (left.server) await end(left.server, SERVER)
}
