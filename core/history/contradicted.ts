import type { Scene } from '../expect'
import type { Facts, Part } from '../record'
import {
  commonOf,
  entries,
  lookUp,
  stationsOnScrews,
  stopIndex,
  walkFrom,
  type ControllerId,
  type Site,
  type TerminalId,
} from '../site'
import type { Newest } from './states'

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
function mendedAt({ site, network, hanging }: Scene, controller: ControllerId, facts: Facts): Map<TerminalId, number> {
  const latest = new Map<TerminalId, number>()
  const findings = Object.values(facts.findings).filter((f) => f.where !== null)
  if (findings.length === 0) return latest
  const terminals = entries(lookUp(site.controllers, controller)?.terminals ?? {}).map(([id]) => id)
  const links = new Map(
    terminals.map((t) => [t, walkFrom(site, network.wiring, controller, t).runs.map((r) => r.link)]),
  )
  const lies = (part: Part, terminal: TerminalId): boolean => {
    switch (part.kind) {
      case 'joint':
        return links.get(terminal)!.some((l) => l.kind === 'leg' && l.splice === part.splice)
      case 'run':
      case 'touch': {
        const cable = lookUp(site.cables, part.cable)
        const [from, to] = cable ? [stopIndex(cable, part.from), stopIndex(cable, part.to)] : [-1, -1]
        const cores: readonly string[] = part.kind === 'run' ? [part.core] : [part.core, part.other]
        return links
          .get(terminal)!
          .some(
            (l) =>
              l.kind === 'stretch' && l.cable === part.cable && cores.includes(l.core) && l.from < to && l.to > from,
          )
      }
      case 'coil':
        return hanging(controller).get(terminal)?.coils.includes(part.device) ?? false
      case 'pair':
        return part.controller === controller && (part.one === terminal || part.two === terminal)
      default:
        // A valve, an output, the supply, the sensor and the water change no ohms.
        return false
    }
  }
  const common = commonOf(site, controller)
  for (const { where, at } of findings) {
    const all = common !== null && lies(where!, common)
    for (const terminal of terminals)
      if (all || lies(where!, terminal))
        latest.set(terminal, Math.max(latest.get(terminal) ?? -Infinity, Date.parse(at)))
  }
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
