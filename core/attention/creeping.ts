import { sceneOf, scenesOf, terminalTest } from '../expect'
import { dayOf, newestOf, pastOf, pastOfTest, threadHistory } from '../history'
import { COMMON_METER, type Facts } from '../record'
import { entries, type ControllerId, type Site, type TerminalId } from '../site'

/** A thread whose ohms rise from year to year, and the day on which it leaves its band. */
export interface Creeping {
  readonly controller: ControllerId
  readonly terminal: TerminalId
  readonly on: string
}

/**
 * Threads that creep, the first to leave its band first. It yields after each thread, so that whoever has other work to
 * do can do it between; a thread that is a fault already creeps no more.
 */
export function* creepingOn(site: Site, facts: Facts): Generator<undefined, Creeping[]> {
  const past = pastOf(facts)
  if (past.size === 0) return []
  const [scene, sceneAt] = [sceneOf(site), scenesOf(site)]
  const found: Creeping[] = []
  for (const [controller, { terminals }] of entries(site.controllers))
    for (const [terminal] of entries(terminals)) {
      const test = terminalTest(site, controller, terminal)
      const read = test === null ? [] : pastOfTest(past, test)
      if (test === null || read.length < 2) continue
      yield
      const { drift } = threadHistory(scene, sceneAt, test, COMMON_METER, read)
      if (drift === null || newestOf(scene, sceneAt, test, read)?.state === 'fault') continue
      found.push({ controller, terminal, on: dayOf(drift.reaches_days) })
    }
  return found.sort((a, b) => a.on.localeCompare(b.on))
}
