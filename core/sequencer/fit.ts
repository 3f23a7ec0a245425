import {
  commandsBetween,
  create,
  freeId,
  join,
  jointOf,
  leadPorts,
  part,
  portEnd,
  remove,
  runInstead,
  set,
  type Work,
} from '../plan'
import { accepted, refusal, refused, type Outcome } from '../refusal'
import {
  byTag,
  endKey,
  getOrThrow,
  stationAt,
  terminalEnd,
  type Command,
  type DeviceId,
  type End,
  type PlaceId,
  type Site,
  type Station,
  type StationId,
  type TerminalAt,
  type TerminalId,
} from '../site'
import { setApart } from './set-apart'

/** A sequencer to be fitted: on whose lead, for which stations besides, and how they get their turns. */
export interface FitWanted {
  /** Its lead feeds the sequencer; its valve is on the first output. */
  readonly host: TerminalAt
  readonly others: readonly StationId[]
  readonly outputs: 2 | 4
  /** One terminal, run as often as there are valves; or each its own, joined by jumpers to the one lead. */
  readonly how: 'one' | 'jumpered'
  /** Jumpered screws so that no two of them stand next to each other; stations and their runs move with them. */
  readonly isSetApart?: boolean
}
/** What fitting it comes to. */
export interface Fit {
  readonly commands: readonly Command[]
  readonly sequencer: DeviceId
  readonly place: PlaceId
  /** Joints that are made or made anew, and ends that are capped. */
  readonly joints: number
  readonly caps: number
}

/**
 * Fits a sequencer into the box of a valve with a good lead: the lead off every valve and onto its input, one valve to
 * an output in the order given, its common into the common there, unused outputs and leads that
 * nothing hangs on capped.
 */
export function fitSequencer(site: Site, { host, others, outputs, how, isSetApart = false }: FitWanted): Outcome<Fit> {
  const first = stationAt(site, host)
  if (!first) return refused(refusal('no_such_station', ['host'], { tag: host.terminal }))
  const stations: (readonly [StationId, Station])[] = [
    first,
    ...others.map((id) => [id, getOrThrow(site.stations, id)] as const),
  ]
  if (stations.length > outputs || stations.length < 2)
    return refused(refusal('sequencer_holds', ['others'], { most: outputs, count: stations.length }))
  const [near] = first[1].valves
  if (near === undefined) return refused(refusal('no_valve_there', ['host'], { name: first[1].name }))
  const { place } = getOrThrow(site.devices, near)
  const elsewhere = stations.find(
    ([, s]) =>
      s.controller !== host.controller ||
      s.valves.length === 0 ||
      s.valves.some((v) => getOrThrow(site.devices, v).place !== place),
  )
  if (elsewhere)
    return refused(
      refusal('sequencer_elsewhere', ['others'], { name: elsewhere[1].name, box: getOrThrow(site.places, place).tag }),
    )

  const hot = leadPorts(site, host.controller)
  const open = stations.flatMap(([, s]) => s.valves).find((v) => hot(v) === null)
  if (open !== undefined)
    return refused(refusal('no_common_there', ['others'], { device: getOrThrow(site.devices, open).tag ?? open }))
  const lead = leadOf(site, portEnd(near, hot(near)!))
  if (!lead) return refused(refusal('no_lead_there', ['host'], { name: first[1].name }))
  const screws = how === 'jumpered' && isSetApart ? setApart(site, host.controller, host.terminal, others) : new Map()
  if (!screws) return refused(refusal('none_apart', ['others'], { count: stations.length }))

  const work: Work = { site }
  const tag = freeTag(site)
  const sequencer = freeId(site, 'devices', tag) as DeviceId
  create(work, 'devices', sequencer, { kind: 'sequencer', tag, place, outputs })
  for (const [, s] of stations) for (const v of s.valves) part(work, portEnd(v, hot(v)!))
  join(work, place, [lead, portEnd(sequencer, 'in')])
  stations.forEach(([, s], i) =>
    join(work, place, [portEnd(sequencer, `out_${i + 1}`), ...s.valves.map((v) => portEnd(v, hot(v)!))]),
  )
  const other = (v: DeviceId) => portEnd(v, hot(v) === 'a' ? 'b' : 'a')
  // A valve that was only just set has neither lead joined yet: its common comes with it.
  const bare = stations.flatMap(([, s]) => s.valves).filter((v) => jointOf(work.site, other(v)) === null)
  join(work, place, [other(near), portEnd(sequencer, 'common'), ...bare.map(other)])
  for (let i = stations.length + 1; i <= outputs; i++) cap(work, place, portEnd(sequencer, `out_${i}`))
  if (how === 'one') {
    for (const [id, { terminal }] of stations.slice(1)) {
      runInstead(work, host.controller, terminal, host.terminal)
      remove(work, 'stations', id)
    }
    set(
      work,
      'stations',
      first[0],
      'valves',
      stations.flatMap(([, s]) => s.valves),
    )
  } else {
    const cabinet = getOrThrow(site.controllers, host.controller).place
    for (const [id, { controller, terminal }] of stations.slice(1)) {
      const screw: TerminalId = screws.get(id) ?? terminal
      for (const t of new Set([terminal, screw])) part(work, terminalEnd(controller, t))
      join(work, cabinet, [terminalEnd(host.controller, host.terminal), terminalEnd(controller, screw)])
      if (screw === terminal) continue
      set(work, 'stations', id, 'terminal', screw)
      runInstead(work, controller, terminal, screw)
    }
  }
  const touched = Object.entries(work.site.splices).filter(
    ([id, s]) => JSON.stringify(s.ends) !== JSON.stringify(site.splices[id as keyof typeof site.splices]?.ends),
  )
  return accepted({
    commands: commandsBetween(site, work.site),
    sequencer,
    place,
    joints: touched.filter(([, s]) => s.ends.length > 1 && s.connector !== 'terminal').length,
    caps: touched.filter(([, s]) => s.connector === 'cap').length,
  })
}

/** The core’s end in the joint of a valve’s lead; null where there is none. */
function leadOf(site: Site, hot: End): End | null {
  const joint = jointOf(site, hot)
  const ends = joint === null ? [] : getOrThrow(site.splices, joint).ends
  return ends.find((e) => e.kind === 'core' && endKey(e) !== endKey(hot)) ?? null
}

function cap(work: Work, place: PlaceId, end: End): void {
  create(work, 'splices', freeId(work.site, 'splices', `${getOrThrow(work.site.places, place).tag}-cap`), {
    place,
    connector: 'cap',
    ends: [end],
  })
}

/** The first of Q1, Q2, … that no device has. */
function freeTag(site: Site): string {
  const tags = Object.values(site.devices).flatMap((d) => d.tag ?? [])
  const taken = new Set(tags.sort(byTag))
  let n = 1
  while (taken.has(`Q${n}`)) n++
  return `Q${n}`
}
