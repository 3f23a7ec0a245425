import { giveUp, say, wait } from './plain.mjs'
import { startCluster } from './postgres.mjs'
import { isWell, prepareDatabase, startServer } from './server.mjs'

/**
 * A part that dies this soon after it was well has hardly lived; so many times in a row, and it is broken, not
 * unlucky.
 */
const HARDLY_LIVED_ms = 2000
const MOST_IN_A_ROW = 8

/**
 * The database and the server, kept up: either one that dies is started again, on the port it had.
 * @param options `cluster`: arguments of startCluster, or null where `url` names a database of somebody else's;
 *   `demo`: load the demo where it never was; `note`: told the process numbers whenever they change; `fail`: told the
 *   sentence when it cannot go on (by default that ends the program)
 * @returns `stop`, which works from the first moment, and `ready`, a promise of the database's address
 */
export function supervise({
  cluster: wanted,
  url: given = null,
  port,
  demo = false,
  note = () => {},
  tell = say,
  fail = (sentence) => giveUp(sentence, 1),
}) {
  let stopping = false
  let cluster = null
  let server = null
  /** When each part was last well, null while it is not, and how often in a row it hardly lived. */
  const lives = { server: { since: null, short: 0 }, database: { since: Date.now(), short: 0 } }

  async function again(what, start) {
    const life = lives[what]
    life.short = life.since === null || Date.now() - life.since < HARDLY_LIVED_ms ? life.short + 1 : 0
    life.since = null
    if (life.short >= MOST_IN_A_ROW)
      return fail(`The ${what} keeps stopping. Look at what was printed above, then start again.`)
    tell(`The ${what} stopped; starting it again …`)
    return start()
  }

  async function serve(url) {
    server = startServer(url, port)
    const { child } = server
    note({ server: child.pid, database: cluster?.pid() ?? null })
    if (!(await isWell(port, child))) {
      // Killed while it was coming up, or the database was away for that long: begin again, unless that never helps.
      if (stopping) return undefined
      return child.exitCode === null && child.signalCode === null
        ? fail('The server did not start; what it printed is above.')
        : again('server', () => serve(url))
    }
    lives.server.since = Date.now()
    child.once('exit', () => {
      if (!stopping) void again('server', () => serve(url))
    })
    return undefined
  }

  async function watchCluster() {
    while (!stopping) {
      await wait(1000)
      if (stopping || cluster.alive()) continue
      await again('database', async () => {
        cluster = await startCluster(wanted[0], { ...wanted[1], fresh: false, port: cluster.port })
        lives.database.since = Date.now()
        note({ server: server.child.pid, database: cluster.pid() })
      })
    }
  }

  const stop = async () => {
    stopping = true
    await server?.stop()
    await cluster?.stop()
  }
  const begin = async () => {
    if (wanted) cluster = await startCluster(...wanted)
    const url = given ?? cluster.url
    const trouble = prepareDatabase(url, { demo })
    if (trouble !== null) await fail(`The database could not be prepared.\n${trouble}`)
    if (!stopping) await serve(url)
    if (cluster) void watchCluster()
    return url
  }
  return { stop, ready: begin() }
}
