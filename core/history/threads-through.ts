import type { Scene } from '../expect'
import type { Part } from '../record'
import { commonOf, entries, lookUp, stopIndex, walkFrom, type ControllerId, type TerminalId } from '../site'

/**
 * Tells of a part the terminals of a controller whose ohms it changes: those on whose way it lies, all of them where it
 * lies on the common. A valve, an output, the supply, the sensor and the water change no ohms.
 */
export function threadsThrough(
  { site, network, hanging }: Scene,
  controller: ControllerId,
): (part: Part) => readonly TerminalId[] {
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
        return false
    }
  }
  const common = commonOf(site, controller)
  return (part) => (common !== null && lies(part, common) ? terminals : terminals.filter((t) => lies(part, t)))
}
