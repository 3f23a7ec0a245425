import { join, leadPorts, part, portEnd, remove, runInstead, set, jointOf, type Work } from '../../plan'
import { coded } from '../../refusal'
import { fitSequencer } from '../../sequencer'
import {
  applyBatch,
  entries,
  getOrThrow,
  terminalEnd,
  type End,
  type PlaceId,
  type Site,
  type Station,
  type StationId,
} from '../../site'
import { cap } from '../mend'
import type { RepairAsk, Tried, WhyNot } from '../repair'
import { triedWith } from '../tried'

const none = (code: 'none_stopped' | 'several_stations' | 'no_neighbour' | 'no_lead', params = {}): WhyNot =>
  coded(code, [], params)

/**
 * The one station that has stopped, with its box and the others whose valves are there; why not, where there is none.
 */
function neighbours(
  ask: RepairAsk,
): { own: [StationId, Station]; box: PlaceId; others: [StationId, Station][] } | WhyNot {
  const { damage, stopped } = ask
  const [id, ...more] = stopped
  if (id === undefined) return none('none_stopped')
  if (more.length > 0) return none('several_stations', { count: stopped.length })
  const own = getOrThrow(damage.site.stations, id)
  const boxes = new Set(own.valves.map((v) => getOrThrow(damage.site.devices, v).place))
  const [box] = boxes
  if (box === undefined || boxes.size > 1) return none('no_neighbour', { name: own.name })
  const others = entries(damage.site.stations).filter(
    ([other, s]) =>
      other !== id &&
      s.address === null &&
      own.address === null &&
      s.controller === own.controller &&
      s.valves.length > 0 &&
      s.valves.every((v) => getOrThrow(damage.site.devices, v).place === box),
  )
  return others.length > 0 ? { own: [id, own], box, others } : none('no_neighbour', { name: own.name })
}

/** Valves of two stations on the lead of one of them, in the box where both are. */
export function twoOnLeads(ask: RepairAsk): Tried[] | WhyNot {
  const found = neighbours(ask)
  if ('code' in found) return found
  const { own, box, others } = found
  const hot = leadPorts(ask.site, own[1].controller)
  const made = others.flatMap(([id, host]): Tried[] => {
    const lead = host.valves[0] && hot(host.valves[0]) ? portEnd(host.valves[0], hot(host.valves[0])!) : null
    if (!lead || jointOf(ask.damage.site, lead) === null || own[1].valves.some((v) => hot(v) === null)) return []
    const work: Work = { site: ask.damage.site }
    const left: End[] = []
    for (const v of own[1].valves) {
      const port = portEnd(v, hot(v)!)
      left.push(...partnersOf(work.site, port))
      part(work, port)
      join(work, box, [lead, port])
    }
    for (const end of left) if (end.kind === 'core') cap(work, box, end)
    oneStation(work, own, [id, host])
    return [triedWith(ask, work, [box])]
  })
  return made.length > 0 ? made : none('no_lead', { name: own[1].name })
}

/** What a joint held besides, where nothing but one core is left in it. */
function partnersOf(site: Site, port: End): readonly End[] {
  const joint = jointOf(site, port)
  const ends = joint === null ? [] : getOrThrow(site.splices, joint).ends
  return ends.length === 2 ? ends.filter((e) => JSON.stringify(e) !== JSON.stringify(port)) : []
}

/** Two stations as one on the screw of the second: their valves, their water, their runs in the programs. */
export function oneStation(work: Work, [gone, own]: [StationId, Station], [kept, host]: [StationId, Station]): void {
  runInstead(work, own.controller, own.terminal, host.terminal)
  remove(work, 'stations', gone)
  set(work, 'stations', kept, 'valves', [...host.valves, ...own.valves])
  const flow_Lmin = own.flow_Lmin === null || host.flow_Lmin === null ? null : own.flow_Lmin + host.flow_Lmin
  if (flow_Lmin !== host.flow_Lmin) set(work, 'stations', kept, 'flow_Lmin', flow_Lmin)
}

/** A sequencer on the lead of each neighbour, with the screws jumpered or with one for both. */
export function sequencers(ask: RepairAsk): Tried[] | WhyNot {
  const found = neighbours(ask)
  if ('code' in found) return found
  const { own, box, others } = found
  const isScrewDead = ask.damage.dead.length > 0
  const made = others.flatMap(([, host]) =>
    (['jumpered', 'one'] as const).flatMap((how): Tried[] => {
      // A dead screw gives no turn.
      if (how === 'jumpered' && isScrewDead) return []
      const { controller, terminal } = host
      const fit = fitSequencer(ask.damage.site, { host: { controller, terminal }, others: [own[0]], outputs: 2, how })
      const next = fit.ok ? applyBatch(ask.damage.site, fit.value.commands) : null
      if (!next?.ok) return []
      const cabinet = getOrThrow(ask.site.controllers, controller).place
      return [triedWith(ask, { site: next.value.site }, [box, cabinet], { parts: { sequencer: 1 } })]
    }),
  )
  return made.length > 0 ? made : none('no_lead', { name: own[1].name })
}

/** The lead of a dead screw moved to one that is free. */
export function freeScrews(ask: RepairAsk): Tried[] | WhyNot {
  const { damage, where } = ask
  if (where.kind !== 'terminal') return coded('no_free_screw')
  const { place, terminals } = getOrThrow(damage.site.controllers, where.controller)
  const landed = (terminal: string) => jointOf(damage.site, terminalEnd(where.controller, terminal)) !== null
  const used = new Set(
    Object.values(damage.site.stations).flatMap((s) => (s.controller === where.controller ? [s.terminal] : [])),
  )
  const free = entries(terminals).filter(([id, t]) => t.role === 'station' && !used.has(id) && !landed(id))
  if (free.length === 0)
    return coded('no_free_screw', [], { controller: getOrThrow(damage.site.controllers, where.controller).tag })
  const station = entries(damage.site.stations).find(
    ([, s]) => s.controller === where.controller && s.terminal === where.terminal && s.address === null,
  )
  const joint = jointOf(damage.site, terminalEnd(where.controller, where.terminal))
  if (!station || joint === null) return coded('no_lead', [], { name: terminals[where.terminal]!.tag })
  return free.map(([id]) => {
    const work: Work = { site: damage.site }
    const { ends } = getOrThrow(damage.site.splices, joint)
    const old = terminalEnd(where.controller, where.terminal)
    set(work, 'splices', joint, 'ends', [
      terminalEnd(where.controller, id),
      ...ends.filter((e) => JSON.stringify(e) !== JSON.stringify(old)),
    ])
    set(work, 'stations', station[0], 'terminal', id)
    runInstead(work, where.controller, where.terminal, id)
    return triedWith(ask, work, [place], { work: { screw: 1 } })
  })
}
