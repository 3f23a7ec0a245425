import { sceneOf, scenesOf, terminalTest, type VerdictCode } from '../expect'
import { contradictionsOf, dayOf, newestOf, pastOf, pastOfTest, threadHistory } from '../history'
import { COMMON_METER, type Facts } from '../record'
import { entries, type ControllerId, type Site, type TerminalId } from '../site'

interface Thread {
  readonly controller: ControllerId
  readonly terminal: TerminalId
}
/** What the readings of all years say of a property’s threads. */
export interface Threads {
  /** Those that read a fault last, with nothing newer that speaks against it: what it was, and when. */
  readonly faults: readonly (Thread & { readonly verdict: VerdictCode; readonly at: string })[]
  /**
   * Those whose ohms rise from year to year, and the day on which each leaves its band, the first before the others.
   */
  readonly creeping: readonly (Thread & { readonly on: string })[]
}

/**
 * Looks through the threads. It yields after each, so that whoever has other work to do can do it between; a thread
 * that is a fault already creeps no more.
 */
export function* threadsOn(site: Site, facts: Facts): Generator<undefined, Threads> {
  const past = pastOf(facts)
  const faults: Threads['faults'][number][] = []
  const creeping: Threads['creeping'][number][] = []
  if (past.size === 0) return { faults, creeping }
  const [scene, sceneAt] = [sceneOf(site), scenesOf(site)]
  for (const [controller, { terminals }] of entries(site.controllers)) {
    const isContradicted = contradictionsOf(scene, controller, facts)
    for (const [terminal] of entries(terminals)) {
      const test = terminalTest(site, controller, terminal)
      const read = test === null ? [] : pastOfTest(past, test)
      if (test === null || read.length === 0) continue
      yield
      const newest = newestOf(scene, sceneAt, test, read)
      if (newest?.state === 'fault') {
        const { verdict, past: last } = newest
        if (!isContradicted(terminal, newest)) faults.push({ controller, terminal, verdict, at: last.reading.at })
        continue
      }
      const { drift } = threadHistory(scene, sceneAt, test, COMMON_METER, read)
      if (drift !== null) creeping.push({ controller, terminal, on: dayOf(drift.reaches_days) })
    }
  }
  return { faults, creeping: creeping.sort((a, b) => a.on.localeCompare(b.on)) }
}
