import type { Scene } from '../expect'
import type { Facts } from '../record'
import { stationsOnScrews, type ControllerId, type Site, type TerminalId } from '../site'
import type { Newest } from './states'
import { threadsThrough } from './threads-through'

/**
 * Whether something newer speaks against how a thread was read last: a repair on its way, after which it is not known
 * again before it is read again, or water that came where the reading was bad, or stayed away where it was good.
 */
export function contradictionsOf(
  scene: Scene,
  controller: ControllerId,
  facts: Facts,
): (terminal: TerminalId, newest: Newest) => boolean {
  const mended = mendedAt(scene, controller, facts)
  const watered = wateredAt(scene.site, controller, facts)
  return (terminal, { state, past }) => {
    const read = Date.parse(past.reading.at)
    if ((mended.get(terminal) ?? -Infinity) > read) return true
    const water = watered.get(terminal)
    return water !== undefined && water.at > read && (state === 'fault' ? water.came : state === 'fits' && !water.came)
  }
}

/** By terminal, when a part on its way was mended last; a part of the common lies on the way of all. */
function mendedAt(scene: Scene, controller: ControllerId, facts: Facts): Map<TerminalId, number> {
  const latest = new Map<TerminalId, number>()
  const findings = Object.values(facts.findings).filter((f) => f.where !== null)
  if (findings.length === 0) return latest
  const through = threadsThrough(scene, controller)
  for (const { where, at } of findings)
    for (const terminal of through(where!))
      latest.set(terminal, Math.max(latest.get(terminal) ?? -Infinity, Date.parse(at)))
  return latest
}

/** By terminal, whether its own valves watered when it was switched on last. */
function wateredAt(site: Site, controller: ControllerId, facts: Facts): Map<TerminalId, { at: number; came: boolean }> {
  const own = new Map(stationsOnScrews(site, controller).map((s) => [s.terminal, s.valves] as const))
  const struck = new Set(Object.values(facts.strikeOuts).map((s) => s.reading))
  const latest = new Map<TerminalId, { at: number; came: boolean }>()
  for (const [id, { test, value, at }] of Object.entries(facts.readings)) {
    if (test.kind !== 'water' || value.kind !== 'waters' || test.at.controller !== controller || struck.has(id))
      continue
    const valves = own.get(test.at.terminal) ?? []
    const when = Date.parse(at)
    if (valves.length > 0 && when >= (latest.get(test.at.terminal)?.at ?? -Infinity))
      latest.set(test.at.terminal, { at: when, came: valves.every((v) => value.valves.includes(v)) })
  }
  return latest
}
