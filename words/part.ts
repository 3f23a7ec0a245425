import type { Cause } from '../core/hunt'
import type { Part } from '../core/record'
import { stopIndex, type CoreId, type DeviceId, type End, type Leaving, type Site, type TerminalId } from '../core/site'
import { say, type Speaker } from './say'

/** Names by which people know the parts of a property. */
export function namesOf(site: Site, speaker: Speaker) {
  const box = (place: string) => site.places[place as keyof typeof site.places]?.tag ?? place
  const valve = (device: DeviceId): string => {
    const station = Object.values(site.stations).find((s) => s.valves.includes(device))
    const d = site.devices[device]
    return station?.name ?? (d?.name || d?.tag || device)
  }
  const terminal = (controller: string, id: TerminalId) =>
    site.controllers[controller as keyof typeof site.controllers]?.terminals[id]?.tag ?? id
  const station = (controller: string, id: TerminalId) =>
    Object.values(site.stations).find((s) => s.controller === controller && s.terminal === id)?.name ??
    terminal(controller, id)
  /** Whose wire a core or an end is, through all joints: the common's, a lead's, or nobody's. */
  const wire = (at: End | Leaving): { readonly common: boolean; readonly name: string | null } => {
    const held = speaker.wire(site, at)
    return {
      common: held !== null && site.controllers[held.controller]?.terminals[held.terminal]?.role === 'common',
      name: held && station(held.controller, held.terminal),
    }
  }
  return { box, valve, terminal, station, wire }
}

/** Whose wire a joint or a run is of: the common's, one thread's by its zone's name, or nobody's that is known. */
export function wireOf(
  where: Extract<Part, { kind: 'joint' | 'run' }>,
  site: Site,
  speaker: Speaker,
): { readonly common: boolean; readonly name: string | null } {
  const { valve, wire } = namesOf(site, speaker)
  if (where.kind === 'run')
    return wire({ cable: where.cable, core: where.core, from: stopIndex(site.cables[where.cable]!, where.from) })
  const { ends } = site.splices[where.splice]!
  const ports = ends.filter((e) => e.kind === 'port')
  const isOf = (name: string) => ports.some((p) => p.port.startsWith(name))
  // At a decoder: either leg of its path is nobody's in particular, an output is its coil's.
  if (isOf('path_')) return { common: false, name: null }
  const coil = ports.find((p) => site.devices[p.device]?.kind === 'coil')
  if (isOf('out_') && coil) return { common: false, name: valve(coil.device) }
  if (ports.length > 1 || ends.some((e) => e.kind === 'core' && wire(e).common)) return { common: true, name: null }
  // A lead that is jointed on its way holds no coil there: it goes by whose lead it is.
  return { common: false, name: ports[0] ? valve(ports[0].device) : ends[0] ? wire(ends[0]).name : null }
}

/** A part of the property as people speak of it, without a capital. */
export function sayPart(where: Part, site: Site, speaker: Speaker): string {
  const names = namesOf(site, speaker)
  const part = (code: string, params: Record<string, string> = {}) => say({ code: `part.${code}`, params }, speaker)
  switch (where.kind) {
    case 'joint': {
      const box = names.box(site.splices[where.splice]!.place)
      const { common, name } = wireOf(where, site, speaker)
      if (common) return part('joint_common', { box })
      return name ? part('joint', { name, box }) : part('joint_other', { box })
    }
    case 'run': {
      const cable = site.cables[where.cable]!
      const [from, to] = [where.from, where.to].map((stop) =>
        names.box(cable.stops[stopIndex(cable, stop)]!.place),
      ) as [string, string]
      const { common, name } = wireOf(where, site, speaker)
      if (common) return part('run_common', { from, to })
      return name
        ? part('run', { name, from, to })
        : part('run_other', {
            colour: cable.cores[where.core]?.colour?.value ?? where.core,
            cable: cable.tag ?? where.cable,
            from,
            to,
          })
    }
    case 'touch': {
      const cable = site.cables[where.cable]!
      const [from, to] = [where.from, where.to].map((stop) =>
        names.box(cable.stops[stopIndex(cable, stop)]!.place),
      ) as [string, string]
      const core = (id: CoreId) => {
        const { common, name } = names.wire({ cable: where.cable, core: id, from: stopIndex(cable, where.from) })
        return common ? part('common') : (name ?? cable.cores[id]?.colour?.value ?? id)
      }
      return part('touch', { one: core(where.core), two: core(where.other), from, to })
    }
    case 'coil':
    case 'valve':
      return part(where.kind, { name: names.valve(where.device), box: names.box(site.devices[where.device]!.place) })
    case 'pair':
      return part('pair', {
        one: names.station(where.controller, where.one),
        two: names.station(where.controller, where.two),
      })
    case 'terminal':
      return part('terminal', { terminal: names.terminal(where.controller, where.terminal) })
    case 'thread':
      return part('thread', { name: names.station(where.controller, where.terminal) })
    default:
      return part(where.kind)
  }
}

export const sayCause = (cause: Cause, speaker: Speaker): string => say({ code: `cause.${cause}`, params: {} }, speaker)
