import { giveUp, say, wait } from './plain.mjs'
import { startCluster } from './postgres.mjs'
import { isWell, prepareDatabase, startServer } from './server.mjs'

/** A part that dies more often than this within a minute is broken, not unlucky. */
const MOST_RESTARTS = 5

/**
 * The database and the server, kept up: either one that dies is started again, on the port it had.
 * @param options `cluster`: arguments of startCluster, or null where `url` names a database of somebody else's;
 *   `demo`: load the demo where it never was; `note`: told the process numbers whenever they change; `fail`: told the
 *   sentence when it cannot go on (by default that ends the program)
 * @returns `stop`, which works from the first moment, and `ready`, a promise of the database's address
 */
export function supervise({ cluster: wanted, url: given = null, port, demo = false, note = () => {}, tell = say, fail = (sentence) => giveUp(sentence, 1) }) {
  let stopping = false
  let cluster = null
  let server = null
  const restarts = []

  async function again(what, start) {
    restarts.push(Date.now())
    if (restarts.filter((at) => at > Date.now() - 60_000).length > MOST_RESTARTS) return fail(`The ${what} keeps stopping. Look at what was printed above, then start again.`)
    tell(`The ${what} stopped; starting it again …`)
    return start()
  }

  async function serve(url) {
    server = startServer(url, port)
    const { child } = server
    note({ server: child.pid, database: cluster?.pid() ?? null })
    if (!await isWell(port, child)) return stopping ? undefined : fail('The server did not start; what it printed is above.')
    child.once('exit', () => { if (!stopping) void again('server', () => serve(url)) })
    return undefined
  }

  async function watchCluster() {
    while (!stopping) {
      await wait(1000)
      if (stopping || cluster.alive()) continue
      await again('database', async () => {
        cluster = await startCluster(wanted[0], { ...wanted[1], fresh: false, port: cluster.port })
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
