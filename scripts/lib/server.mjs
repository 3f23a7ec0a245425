import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { CLONE, quietly, tail, wait } from './plain.mjs'
import { end } from './processes.mjs'

export const SERVER = join(CLONE, '.output/server/index.mjs')

/** Brings the tables up to date and, where asked, loads the demo once. Returns an error's last lines, or null. */
export function prepareDatabase(url, { demo }) {
  const done = quietly(process.execPath, ['--import', 'tsx', 'server/db/prepare.ts', ...(demo ? ['--demo'] : [])], {
    env: { ...process.env, DATABASE_URL: url },
  })
  return done.ok ? null : tail(done.output, 12)
}

/** Starts the built server in a process group of its own, so that Ctrl-C reaches this program first. */
export function startServer(url, port, { quiet = false } = {}) {
  const env = {
    ...process.env,
    DATABASE_URL: url,
    NITRO_HOST: '127.0.0.1',
    NITRO_PORT: String(port),
    HOST: '127.0.0.1',
    PORT: String(port),
    NODE_ENV: 'production',
  }
  const child = spawn(process.execPath, [SERVER], {
    env,
    cwd: CLONE,
    detached: true,
    stdio: ['ignore', 'ignore', quiet ? 'ignore' : 'inherit'],
  })
  return { child, stop: () => end(child.pid, SERVER) }
}

/** Waits until the server answers that it is well; false after a minute or when the process has ended. */
export async function isWell(port, child) {
  for (let tries = 0; tries < 600 && child.exitCode === null && child.signalCode === null; tries++) {
    try {
      const reply = await fetch(`http://127.0.0.1:${port}/api/health`)
      if (reply.ok) return true
    } catch {
      /* not up yet */
    }
    await wait(100)
  }
  return false
}
