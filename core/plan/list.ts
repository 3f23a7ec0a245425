import { gaugeText, type Gauge } from '../quantity'
import { accepted, refusal, refused, type Outcome, type Refusal } from '../refusal'
import {
  bounded,
  byTag,
  checkSite,
  commonOf,
  entries,
  getOrThrow,
  terminalEnd,
  terminalsInOrder,
  type CableId,
  type Command,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type PlaceId,
  type Site,
  type StationId,
  type TerminalId,
  isLaid,
  pointAt,
  stationAt,
} from '../site'
import { commandsBetween } from './difference'
import { MASTER, RELAY, type StationRow } from './row'
import {
  addCore,
  bringCore,
  capLoose,
  heal,
  reachBox,
  runsOf,
  spareCore,
  startRun,
  stopAt,
  tapCommon,
  type PlanRun,
} from './run'
import { coreEnd, create, freeId, freeKey, join, part, portEnd, remove, set, type Work } from './work'

/** A row as the property has it, with what it stands for. */
export interface ListedRow extends StationRow {
  readonly controller: ControllerId
  readonly terminal: TerminalId
  readonly stationId: StationId | null
  readonly device: DeviceId | null
  readonly run: CableId | null
  readonly place: PlaceId | null
}

/** Every station, master valve and relay of the property as rows, in the order of the doors. */
export function rowsOf(site: Site): ListedRow[] {
  const many = Object.keys(site.controllers).length > 1
  return entries(site.controllers)
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .flatMap(([controller, record]) =>
      terminalsInOrder(site, controller).flatMap((terminal): ListedRow[] => {
        const tag = (t: string) => (many ? `${record.tag}:${t}` : t)
        const found = stationAt(site, { controller, terminal })
        if (found) {
          const [stationId, station] = found
          return [
            {
              ...blank,
              ...placed(site, controller, station.valves[0] ?? null),
              station: tag(getOrThrow(record.terminals, terminal).tag),
              name: station.name,
              zone: station.zone,
              controller,
              terminal,
              stationId,
            },
          ]
        }
        return Object.values(site.pointsOfConnection)
          .filter((p) => p.terminal?.controller === controller && p.terminal.terminal === terminal)
          .flatMap((p) => [
            ...(p.masterValve
              ? [
                  {
                    ...blank,
                    ...placed(site, controller, p.masterValve),
                    station: tag(MASTER),
                    name: getOrThrow(site.devices, p.masterValve).name,
                    controller,
                    terminal,
                    stationId: null,
                  },
                ]
              : []),
            ...(p.pumpRelay
              ? [
                  {
                    ...blank,
                    ...placed(site, controller, p.pumpRelay),
                    station: tag(RELAY),
                    name: getOrThrow(site.devices, p.pumpRelay).name,
                    controller,
                    terminal,
                    stationId: null,
                    cable: null,
                    box: null,
                    at_m: null,
                  },
                ]
              : []),
          ])
      }),
    )
}

const blank: Omit<StationRow, 'station'> = {
  name: '',
  zone: '',
  cable: null,
  box: null,
  at_m: null,
  coil: null,
  colour: null,
  kind: null,
  gauge: null,
}

function placed(site: Site, controller: ControllerId, device: DeviceId | null) {
  if (device === null) return { device, run: null, place: null }
  const { place, coilKind } = getOrThrow(site.devices, device)
  const lead = leadOf(site, device)
  const run = runsOf(site, controller).find((r) => stopAt(getOrThrow(site.cables, r.cable), place) >= 0)
  const cable = lead ? getOrThrow(site.cables, lead.cable) : run ? getOrThrow(site.cables, run.cable) : null
  const at = cable ? bounded(cable.stops[stopAt(cable, place)]?.at_m ?? null) : null
  const own = lead && cable ? getOrThrow(cable.cores, lead.core) : null
  return {
    device,
    run: run?.cable ?? null,
    place,
    box: getOrThrow(site.places, place).tag,
    at_m: at?.value ?? null,
    cable: run ? getOrThrow(site.cables, run.cable).tag : (cable?.tag ?? null),
    coil: coilKind === null ? null : getOrThrow(site.coilKinds, coilKind).name,
    colour: own?.colour?.value ?? null,
    kind: cable?.kind === 'multicore' || cable?.kind === 'single' ? cable.kind : null,
    gauge: (own?.gauge ?? cable?.gauge)?.value ?? null,
  }
}

interface Lead {
  readonly cable: CableId
  readonly core: CoreId
  readonly stop: string
  readonly port: 'a' | 'b'
}
const leadsMade = new WeakMap<Site, ReadonlyMap<DeviceId, Lead>>()

/** The core that brings a terminal to a coil, where one joint holds nothing but the two. */
export function leadOf(site: Site, device: DeviceId): Lead | null {
  if (!leadsMade.has(site)) leadsMade.set(site, readLeads(site))
  return leadsMade.get(site)!.get(device) ?? null
}

function readLeads(site: Site): Map<DeviceId, Lead> {
  const commons = new Set(
    entries(site.controllers)
      .flatMap(([c]) => runsOf(site, c))
      .map((r) => `${r.cable} ${r.common}`),
  )
  const leads = new Map<DeviceId, Lead>()
  for (const { ends } of Object.values(site.splices)) {
    const port = ends.find((e) => e.kind === 'port')
    const core = ends.find((e) => e.kind === 'core')
    if (
      ends.length !== 2 ||
      port?.kind !== 'port' ||
      core?.kind !== 'core' ||
      commons.has(`${core.cable} ${core.core}`) ||
      leads.has(port.device)
    )
      continue
    leads.set(port.device, { cable: core.cable, core: core.core, stop: core.stop, port: port.port as 'a' | 'b' })
  }
  return leads
}

/**
 * The commands that bring rows into the property: new stations with valve, lead and joints; rows of stations that are
 * there change what they say (a null leaves what is on record). A valve that moves takes its lead along. Wiring is
 * plain: the common cut and tapped in each box, a lead cut in its own box only, every loose end capped.
 */
export function listCommands(site: Site, rows: readonly StationRow[]): Outcome<Command[]> {
  const work: Work = { site }
  const wrong: Refusal[] = []
  const touched = new Set<CableId>()
  rows.forEach((row, i) => {
    const at = controllerOf(work, row)
    if (!at) {
      wrong.push(
        refusal('no_such_controller', [`row ${i + 1}`, 'station'], {
          tag: row.station.split(':')[0]!,
          options: Object.values(site.controllers)
            .map((c) => c.tag)
            .join(', '),
        }),
      )
      return
    }
    if (
      at.tag.toLowerCase() === 'c' ||
      getOrThrow(work.site.controllers, at.controller).terminals[at.tag as TerminalId]?.role === 'common'
    ) {
      wrong.push(refusal('common_is_no_output', [`row ${i + 1}`, 'station']))
      return
    }
    const run =
      row.cable === null || row.box === null ? null : Object.values(work.site.cables).find((c) => c.tag === row.cable)
    if (run && !runsOf(work.site, at.controller).some((r) => getOrThrow(work.site.cables, r.cable) === run)) {
      wrong.push(refusal('not_a_run', [`row ${i + 1}`, 'cable'], { cable: row.cable! }))
      return
    }
    if (at.tag.toLowerCase() === RELAY) takeRelay(work, at.controller, row)
    else takeRow(work, at.controller, at.tag, row, touched)
  })
  if (wrong.length > 0) return refused(...wrong)
  for (const cable of touched) capLoose(work, cable)
  return withoutDcOnAc(site, work.site)
}

/**
 * The commands from one site to another; refused where a coil for direct current would newly hang on an output for
 * alternating current.
 */
export function withoutDcOnAc(before: Site, after: Site): Outcome<Command[]> {
  const dc = (site: Site) => checkSite(site).filter((f) => f.code === 'dc_coil_on_ac')
  const was = new Set(dc(before).map((r) => r.path[1]))
  const fresh = Object.values(after.coilKinds).some((k) => k.current === 'dc_latching')
    ? dc(after).filter((r) => !was.has(r.path[1]))
    : []
  return fresh.length > 0
    ? refused(...fresh.map(({ path, params }) => refusal('dc_coil_on_ac', path, params)))
    : accepted(commandsBetween(before, after))
}

function controllerOf(work: Work, row: StationRow): { controller: ControllerId; tag: string } | null {
  const parts = row.station.split(':')
  const tag = parts.at(-1)!
  const all = entries(work.site.controllers)
  if (parts.length === 1 && all.length === 0) return { controller: firstController(work), tag }
  const found =
    parts.length === 1
      ? all.length === 1
        ? all[0]
        : undefined
      : all.find(([, c]) => c.tag.toLowerCase() === parts[0]!.toLowerCase())
  return found ? { controller: found[0], tag } : null
}

function firstController(work: Work): ControllerId {
  create(work, 'places', 'A', { tag: 'A', kind: 'cabinet' })
  create(work, 'controllers', 'A', {
    tag: 'A',
    name: 'A',
    place: 'A',
    terminals: { C: { tag: 'C', role: 'common', order: 0 } },
  })
  return 'A' as ControllerId
}

function terminalFor(work: Work, controller: ControllerId, tag: string, role: 'station' | 'master'): TerminalId {
  const { terminals } = getOrThrow(work.site.controllers, controller)
  const found = entries(terminals).find(([, t]) =>
    role === 'master' ? t.role === 'master' : t.tag.toLowerCase() === tag.toLowerCase(),
  )
  if (found) return found[0]
  const order =
    role === 'master'
      ? 1
      : /^\d{1,3}$/.test(tag)
        ? 10 + Number(tag)
        : Math.max(...Object.values(terminals).map((t) => t.order)) + 1
  const id = freeKey(terminals, tag)
  set(work, 'controllers', controller, 'terminals', { ...terminals, [id]: { tag, role, order } })
  return id as TerminalId
}

function takeRow(work: Work, controller: ControllerId, tag: string, row: StationRow, touched: Set<CableId>): void {
  const master = tag.toUpperCase() === MASTER
  const terminal = terminalFor(work, controller, tag, master ? 'master' : 'station')
  const device = master ? masterDevice(work, controller, terminal) : stationDevice(work, controller, terminal, row)
  const coil = row.coil === null ? undefined : coilKindFor(work, row.coil)
  if (row.box === null) {
    if (device !== null && coil !== undefined) set(work, 'devices', device, 'coilKind', coil)
    return
  }
  const place = placeFor(work, row.box)
  const valve = device ?? newValve(work, controller, terminal, tag, place, master)
  if (coil !== undefined) set(work, 'devices', valve, 'coilKind', coil)
  if (master && row.name !== '') set(work, 'devices', valve, 'name', row.name)
  const elsewhere = getOrThrow(work.site.devices, valve).place !== place
  if (elsewhere) {
    unwire(work, valve, touched)
    set(work, 'devices', valve, 'place', place)
  }
  const run = runFor(work, controller, row, place)
  touched.add(run.cable)
  reachBox(work, run.cable, run.common, place, row.at_m)
  if (row.kind !== null || row.gauge !== null) describeRun(work, run, row)
  if (leadOf(work.site, valve) === null && !isJoined(work.site, valve))
    wire(work, run, terminal, valve, place, row, touched)
  const lead = leadOf(work.site, valve)
  if (lead && row.colour !== null) recolour(work, lead.cable, lead.core, row.colour)
}

const isJoined = (site: Site, device: DeviceId) =>
  Object.values(site.splices).some((s) => s.ends.some((e) => e.kind === 'port' && e.device === device))

function stationDevice(work: Work, controller: ControllerId, terminal: TerminalId, row: StationRow): DeviceId | null {
  const found = stationAt(work.site, { controller, terminal })
  if (!found) {
    const pointOfConnection =
      entries(work.site.pointsOfConnection).find(([, p]) => p.terminal?.controller === controller)?.[0] ?? null
    create(work, 'stations', freeId(work.site, 'stations', `${controller}-${terminal}`), {
      controller,
      terminal,
      name: row.name,
      zone: row.zone,
      valves: [],
      pointOfConnection,
    })
    return null
  }
  const [id, station] = found
  if (row.name !== '' && row.name !== station.name) set(work, 'stations', id, 'name', row.name)
  if (row.zone !== '' && row.zone !== station.zone) set(work, 'stations', id, 'zone', row.zone)
  return station.valves[0] ?? null
}

/**
 * The master valve of the controller's point of connection, which is made where there is none; every station then
 * comes on with it.
 */
function masterDevice(work: Work, controller: ControllerId, terminal: TerminalId): DeviceId | null {
  const found = pointAt(work.site, { controller, terminal })
  if (found) return found[1].masterValve
  const id = freeId(work.site, 'pointsOfConnection', `${controller}-supply`)
  create(work, 'pointsOfConnection', id, { name: 'Supply', terminal: { controller, terminal } })
  for (const [station, s] of entries(work.site.stations))
    if (s.controller === controller && s.pointOfConnection === null)
      set(work, 'stations', station, 'pointOfConnection', id)
  return null
}

function takeRelay(work: Work, controller: ControllerId, row: StationRow): void {
  const terminal = terminalFor(work, controller, MASTER, 'master')
  masterDevice(work, controller, terminal)
  const [id, point] = pointAt(work.site, { controller, terminal })!
  const place = getOrThrow(work.site.controllers, controller).place
  const relay = point.pumpRelay ?? (freeId(work.site, 'devices', `${controller}-relay`) as DeviceId)
  if (point.pumpRelay === null) {
    create(work, 'devices', relay, { kind: 'relay', place, name: row.name })
    set(work, 'pointsOfConnection', id, 'pumpRelay', relay)
    join(work, place, [terminalEnd(controller, terminal), portEnd(relay, 'a')])
    join(work, place, [terminalEnd(controller, commonOf(work.site, controller)!), portEnd(relay, 'b')])
  } else if (row.name !== '') set(work, 'devices', relay, 'name', row.name)
  if (row.coil !== null) set(work, 'devices', relay, 'coilKind', coilKindFor(work, row.coil))
}

function newValve(
  work: Work,
  controller: ControllerId,
  terminal: TerminalId,
  tag: string,
  place: PlaceId,
  master: boolean,
): DeviceId {
  const id = freeId(work.site, 'devices', master ? `${controller}-MV` : `${controller}-V${tag}`) as DeviceId
  create(work, 'devices', id, { kind: 'coil', place, tag: freeTag(work.site, master ? MASTER : `V${tag}`) })
  if (master) set(work, 'pointsOfConnection', pointAt(work.site, { controller, terminal })![0], 'masterValve', id)
  else set(work, 'stations', stationAt(work.site, { controller, terminal })![0], 'valves', [id])
  return id
}

const freeTag = (site: Site, tag: string): string | null =>
  tag.length <= 12 && Object.values(site.devices).every((d) => d.tag !== tag) ? tag : null

export function placeFor(work: Work, tag: string): PlaceId {
  const found = entries(work.site.places).find(([, p]) => p.tag.toLowerCase() === tag.toLowerCase())
  if (found) return found[0]
  const id = freeId(work.site, 'places', tag) as PlaceId
  create(work, 'places', id, { tag, kind: 'valve_box', found: 'expected' })
  return id
}

/**
 * A coil kind by its name; where none has it and it is a number, one of so many ohms; else one of typical ohms under
 * that name.
 */
function coilKindFor(work: Work, written: string): string {
  const found = entries(work.site.coilKinds).find(([, k]) => k.name.toLowerCase() === written.trim().toLowerCase())
  if (found) return found[0]
  const ohm = Number(written.replace(',', '.').replace(/\s*(Ω|ohms?)$/i, ''))
  const id = freeId(work.site, 'coilKinds', written)
  const isOhm = Number.isFinite(ohm) && ohm > 0 && ohm <= 10_000
  create(work, 'coilKinds', id, { name: isOhm ? `${ohm} Ω` : written.trim(), resistance_ohm: isOhm ? ohm : 33 })
  return id
}

function runFor(work: Work, controller: ControllerId, row: StationRow, place: PlaceId): PlanRun {
  const runs = runsOf(work.site, controller)
  const named =
    row.cable === null
      ? (runs.find((r) => stopAt(getOrThrow(work.site.cables, r.cable), place) >= 0) ?? runs[0])
      : runs.find((r) => getOrThrow(work.site.cables, r.cable).tag === row.cable)
  return (
    named ??
    startRun(work, controller, row.cable ?? freeRunTag(work.site), row.kind ?? 'multicore', row.gauge, place, row.at_m)
  )
}

function freeRunTag(site: Site): string {
  for (let n = 1; ; n++) if (Object.values(site.cables).every((c) => c.tag !== `K${n}`)) return `K${n}`
}

/** A row's cable columns describe the run; the kind of a run with leads on it stays. */
function describeRun(work: Work, run: PlanRun, row: StationRow): void {
  const cable = getOrThrow(work.site.cables, run.cable)
  const written = row.gauge as Gauge | null
  if (
    written !== null &&
    (cable.gauge === null || gaugeText(cable.gauge.value) !== gaugeText(written)) &&
    cable.kind === 'multicore'
  )
    set(work, 'cables', run.cable, 'gauge', { value: written, how: 'reported' })
}

/** Lead, landing and joints of a valve on a run. */
function wire(
  work: Work,
  run: PlanRun,
  terminal: TerminalId,
  valve: DeviceId,
  place: PlaceId,
  row: StationRow,
  touched: Set<CableId>,
): void {
  const cable = getOrThrow(work.site.cables, run.cable)
  const home = cable.stops[0]!
  if (cable.kind === 'multicore') {
    const station = stationAt(work.site, { controller: run.controller, terminal })?.[0] ?? null
    const spare = spareCore(work.site, run.cable, station)
    // it has no core to give: the valve stands in its box until somebody decides
    if (spare === null && isLaid(cable)) return
    const core = spare ?? addCore(work, run.cable, row.colour)
    bringCore(work, run, core, terminal, valve, place)
  } else {
    const id = freeId(work.site, 'cables', `${run.cable}-${terminal}`) as CableId
    const at = cable.stops[stopAt(cable, place)]!.at_m
    create(work, 'cables', id, {
      kind: 'single',
      gauge: row.gauge === null ? null : { value: row.gauge, how: 'reported' },
      stops: [
        { id: 'home', place: home.place, at_m: { value: 0, how: 'reported' } },
        { id: 'end', place, at_m: at },
      ],
      cores: { c0: { colour: row.colour === null ? null : { value: row.colour, how: 'reported' } } },
    })
    touched.add(id)
    join(work, home.place, [terminalEnd(run.controller, terminal), coreEnd(id, 'c0' as CoreId, 'home', 'leaves')])
    join(work, place, [portEnd(valve, 'a'), coreEnd(id, 'c0' as CoreId, 'end', 'arrives')])
  }
  tapCommon(work, run, place, valve)
}

/** Takes a valve off its wires: its lead becomes a spare core, or goes if it was a conductor of its own. */
function unwire(work: Work, valve: DeviceId, touched: Set<CableId>): void {
  const lead = leadOf(work.site, valve)
  for (const port of ['a', 'b']) part(work, portEnd(valve, port))
  if (!lead) return
  const cable = getOrThrow(work.site.cables, lead.cable)
  if (cable.kind === 'single' && Object.keys(cable.cores).length === 1) {
    for (const s of cable.stops)
      for (const side of ['arrives', 'leaves'] as const) part(work, coreEnd(lead.cable, lead.core, s.id, side))
    remove(work, 'cables', lead.cable)
    touched.delete(lead.cable)
    return
  }
  part(work, coreEnd(lead.cable, lead.core, cable.stops[0]!.id, 'leaves'))
  for (const stop of getOrThrow(cable.cores, lead.core).cutAt) heal(work, lead.cable, lead.core, stop)
  touched.add(lead.cable)
}

function recolour(work: Work, cableId: CableId, core: CoreId, colour: string): void {
  const cable = getOrThrow(work.site.cables, cableId)
  const record = getOrThrow(cable.cores, core)
  if (record.colour?.value !== colour)
    set(work, 'cables', cableId, 'cores', {
      ...cable.cores,
      [core]: { ...record, colour: { value: colour, how: 'reported', on: null } },
    })
}

/**
 * The commands that take a station off the property: its record, its valves and their wiring; a jacket's core becomes
 * a spare.
 */
export function removalCommands(site: Site, station: StationId): Command[] {
  const work: Work = { site }
  const touched = new Set<CableId>()
  const { valves } = getOrThrow(site.stations, station)
  remove(work, 'stations', station)
  for (const valve of valves) withoutValve(work, valve, touched)
  for (const cable of touched) capLoose(work, cable)
  return commandsBetween(site, work.site)
}

/** Takes a valve off its wires, and off the property where nothing else is meant to use it. */
export function withoutValve(work: Work, valve: DeviceId, touched: Set<CableId>): void {
  const { stations, pointsOfConnection } = work.site
  if (
    Object.values(stations).some((s) => s.valves.includes(valve)) ||
    Object.values(pointsOfConnection).some((p) => p.masterValve === valve || p.pumpRelay === valve)
  )
    return
  unwire(work, valve, touched)
  remove(work, 'devices', valve)
}
