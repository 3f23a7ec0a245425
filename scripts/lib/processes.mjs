import { existsSync, readFileSync } from 'node:fs'
import { wait } from './plain.mjs'

/** Whether a process lives and its command line holds this text: a number alone may belong to somebody else by now. */
export function lives(pid, text) {
  try {
    return (
      existsSync(`/proc/${pid}`) &&
      readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ').includes(text) &&
      !/^\d+ \(.*\) Z/.test(readFileSync(`/proc/${pid}/stat`, 'utf8'))
    )
  } catch {
    return false
  }
}

/** Asks a process to end, waits, and ends it where it does not. */
export async function end(pid, text, { signal = 'SIGTERM', patience_ms = 8000 } = {}) {
  if (!lives(pid, text)) return
  try {
    process.kill(pid, signal)
  } catch {
    return
  }
  for (let waited = 0; waited < patience_ms; waited += 50) {
    if (!lives(pid, text)) return
    await wait(50)
  }
  try {
    process.kill(pid, 'SIGKILL')
  } catch {
    /* it ended meanwhile */
  }
}
