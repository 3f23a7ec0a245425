import {
  capLoose,
  commandsBetween,
  coreEnd,
  create,
  cutAt,
  freeId,
  join,
  leadPorts,
  part,
  portEnd,
  remove,
  set,
} from '../plan'
import type { Work } from '../plan'
import { coded, type Coded } from '../refusal'
import {
  applyBatch,
  DisjointSets,
  commonOf,
  entries,
  getOrThrow,
  hangingOn,
  lookUp,
  netsOf,
  pathOf,
  terminalEnd,
  wiringOf,
  type CableId,
  type Command,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type PathAt,
  type PlaceId,
  type Site,
  type Station,
  type StationId,
  type System,
} from '../site'
import { settle } from '../splice'
import { addressCommands, giveAddresses } from './addresses'
import { arrestorCommands, arrestorsOf } from './arrestors'
import { convert, type Conversion } from './convert'
import { freeTag, legEndAt } from './join'
import { decoderPrices, decodersFor, type Kinds } from './kinds'
import { beginPathCommands, wayOutCommands } from './plan'
import { coil_A } from './running'

/** Why a cable cannot be converted where it lies. */
export type NoConversionCode =
  | 'not_from_here'
  | 'no_station_on_it'
  | 'valve_beyond'
  | 'valves_apart'
  | 'behind_sequencer'
  | 'dc_coil'
  | 'twisted_only'
  | 'too_few_cores'
  | 'no_number_left'

/** A cable as a path on paper, and what is bought and done for it. */
export interface LaidConversion {
  /** Connectors are settled by whoever writes it down. */
  readonly site: Site
  readonly conversion: Conversion
  readonly decoders: number
  readonly arrestors: number
  /** Places that are opened, the cabinet first. */
  readonly places: readonly PlaceId[]
  /** Whether the controller had no path before. */
  readonly isFirstPath: boolean
}

type Pair = PathAt['pairs'][number]
/** The screws of a way out under which nothing is landed; null where all are taken. */
function freePair(site: Site, controller: ControllerId): Pair | null {
  const landed = new Set(
    entries(site.splices).flatMap(([, s]) =>
      s.ends.flatMap((e) => (e.kind === 'terminal' && e.controller === controller ? [e.terminal] : [])),
    ),
  )
  return pathOf(site, controller)!.pairs.find((pair) => !pair.some((t) => landed.has(t))) ?? null
}

type Stationed = readonly [StationId, Station]

/**
 * Makes an old cable a path of its controller: every sound core in one of two legs, joined in each of its boxes; a
 * decoder in every box that waters; numbers, and the programs’ runs with them; arrestors where the system’s rules ask
 * for them. What no station’s lead is stays as it is wired: a master valve keeps its own core, and the common with it.
 */
export function layConversion(
  site: Site,
  controller: ControllerId,
  id: CableId,
  system: System,
): LaidConversion | Coded<NoConversionCode> {
  const cable = getOrThrow(site.cables, id)
  const home = getOrThrow(site.controllers, controller).place
  const name = cable.tag ?? id
  if (cable.stops[0]!.place !== home) return coded('not_from_here', [], { cable: name })
  if (system.cable === 'twisted' && cable.kind !== 'twisted_pair') return coded('twisted_only', [], { cable: name })
  const { stations, kept } = usesOf(site, controller, id)
  const unfit = whyUnfit(site, id, system, stations)
  if (unfit) return unfit
  const boxes = byBox(site, system, stations)
  const decoders = boxes.reduce((sum, b) => sum + b.kinds.length, 0)
  const conversion = convert(site, id, system, decoders, undefined, kept)
  const [first, second] = conversion.legs
  if (first.length === 0 || second.length === 0)
    return coded('too_few_cores', [], { cable: name, sound: first.length + second.length })

  const isFirstPath = pathOf(site, controller) === null
  const ports = leadPorts(site, controller)
  const hotOf = new Map(stations.flatMap(([, s]) => s.valves.map((v) => [v, ports(v) ?? 'a'] as const)))
  const work: Work = { site }
  act(work, beginPathCommands(site, controller, system))
  if (freePair(work.site, controller) === null) act(work, wayOutCommands(work.site, controller))
  const pair = freePair(work.site, controller)!
  for (const valve of hotOf.keys()) for (const port of ['a', 'b']) part(work, portEnd(valve, port))
  joinLegs(work, id, { controller, pair }, conversion.legs, kept)
  for (const [defect, d] of entries(site.defects)) {
    // Whatever was known of a grip went out with its joint.
    if (d.kind !== 'grip') continue
    const { end } = d
    const isCutOut =
      end.kind === 'core' ? end.cable === id && !kept.has(end.core) : end.kind === 'port' && hotOf.has(end.device)
    if (isCutOut) remove(work, 'defects', defect)
  }
  const outputs = putDecoders(work, controller, system, boxes, hotOf)
  if (!numberStations(work, controller, system, outputs)) return coded('no_number_left', [], { cable: name })
  const { more } = arrestorsOf(work.site, { ...pathOf(work.site, controller)!, system })
  act(work, arrestorCommands(work.site, pathOf(work.site, controller)!, more))
  capLoose(work, id)
  return {
    site: work.site,
    conversion,
    decoders,
    arrestors: more.length,
    places: [...new Set(cable.stops.map((s) => s.place))],
    isFirstPath,
  }
}

/** The changes that write a conversion down, each joint by the first connectors that are carried and hold it. */
export function conversionCommands(site: Site, laid: LaidConversion): Command[] {
  const work: Work = { site: laid.site }
  settle(work, site)
  return commandsBetween(site, work.site)
}

function act(work: Work, commands: readonly Command[]): void {
  const made = applyBatch(work.site, commands)
  if (!made.ok) throw new Error(`layConversion: ${JSON.stringify(made.refusals)}`)
  work.site = made.value.site
}

/** The stations whose leads lie in a cable, in the order of their screws, and its cores that stay what they are. */
function usesOf(
  site: Site,
  controller: ControllerId,
  id: CableId,
): { stations: Stationed[]; kept: ReadonlySet<CoreId> } {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const common = commonOf(site, controller)
  const own = new Map<string, Stationed | 'common'>()
  for (const [station, s] of entries(site.stations))
    if (s.controller === controller && s.address === null)
      own.set(nets.of(wiring.pointOf(terminalEnd(controller, s.terminal))), [station, s])
  if (common !== null) own.set(nets.of(wiring.pointOf(terminalEnd(controller, common))), 'common')
  const bare = new Set(emptyNets(site, controller, id))
  const stations = new Map<StationId, Stationed>()
  const kept = new Set<CoreId>()
  const commons = new Set<CoreId>()
  for (const link of wiring.links) {
    if (link.kind !== 'stretch' || link.cable !== id) continue
    const net = nets.of(link.a)
    const is = own.get(net)
    if (is === 'common') commons.add(link.core)
    else if (is) stations.set(is[0], is)
    else if (!bare.has(net)) kept.add(link.core)
  }
  const converted = new Set([...stations.values()].flatMap(([, s]) => s.valves))
  if (needsCommon(site, controller, id, commons, converted)) for (const core of commons) kept.add(core)
  const { terminals } = getOrThrow(site.controllers, controller)
  const order = ([, s]: Stationed) => lookUp(terminals, s.terminal)?.order ?? 0
  return { stations: [...stations.values()].sort((a, b) => order(a) - order(b)), kept }
}

/** Whether a coil that stays on the common reaches it through these cores of a cable alone. */
function needsCommon(
  site: Site,
  controller: ControllerId,
  id: CableId,
  commons: ReadonlySet<CoreId>,
  converted: ReadonlySet<DeviceId>,
): boolean {
  const common = commonOf(site, controller)
  if (common === null) return false
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const home = wiring.pointOf(terminalEnd(controller, common))
  const [now, without] = [nets.of(home), new DisjointSets<string>()]
  for (const link of wiring.links) {
    if (link.kind === 'leg') without.join(link.a, link.b)
    if (link.kind === 'stretch' && !(link.cable === id && commons.has(link.core))) without.join(link.a, link.b)
  }
  return wiring.links.some(
    (l) =>
      l.kind === 'coil' &&
      !converted.has(l.device) &&
      [l.a, l.b].some((point) => nets.of(point) === now && without.of(point) !== without.of(home)),
  )
}

/** Nets of a cable’s cores that serve nothing: no screw is on them, and no device. */
function emptyNets(site: Site, controller: ControllerId, id: CableId): string[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const taken = new Set<string>()
  for (const [, splice] of entries(site.splices))
    for (const e of splice.ends)
      if (e.kind !== 'core' && (e.kind !== 'terminal' || e.controller !== controller || splice.ends.length > 1))
        taken.add(nets.of(wiring.pointOf(e)))
  return wiring.links.flatMap((l) =>
    l.kind === 'stretch' && l.cable === id && !taken.has(nets.of(l.a)) ? [nets.of(l.a)] : [],
  )
}

/** Why the stations of a cable cannot hang on decoders in its boxes; null where they can. */
function whyUnfit(
  site: Site,
  id: CableId,
  system: System,
  stations: readonly Stationed[],
): Coded<NoConversionCode> | null {
  const { stops, tag } = getOrThrow(site.cables, id)
  if (stations.length === 0) return coded('no_station_on_it', [], { cable: tag ?? id })
  const boxes = new Set(stops.slice(1).map((s) => s.place))
  const wiring = wiringOf(site)
  for (const [, { controller, terminal, valves, name }] of stations) {
    const places = new Set(valves.map((v) => getOrThrow(site.devices, v).place))
    if ([...places].some((p) => !boxes.has(p))) return coded('valve_beyond', [], { name, cable: tag ?? id })
    if (places.size > 1 || (system.coilsPerOutput !== null && valves.length > system.coilsPerOutput))
      return coded('valves_apart', [], { name })
    if ((hangingOn(site, wiring, controller).get(terminal)?.switchedBy.length ?? 0) > 0)
      return coded('behind_sequencer', [], { name })
    const isDc = (valve: DeviceId) => {
      const { coilKind } = getOrThrow(site.devices, valve)
      return coilKind !== null && lookUp(site.coilKinds, coilKind)?.current === 'dc_latching'
    }
    if (system.acCoilsOnly === true && valves.some(isDc)) return coded('dc_coil', [], { name })
  }
  return null
}

/** Joins the cores of either leg in every box, and under the screws of a way out; what is left out is capped. */
function joinLegs(
  work: Work,
  id: CableId,
  { controller, pair }: { readonly controller: ControllerId; readonly pair: Pair },
  legs: Conversion['legs'],
  kept: ReadonlySet<CoreId>,
): void {
  const { stops, cores } = getOrThrow(work.site.cables, id)
  for (const [core] of entries(cores)) {
    if (kept.has(core)) continue
    for (const { id: stop } of stops)
      for (const side of ['arrives', 'leaves'] as const) part(work, coreEnd(id, core, stop, side))
    if (legs.some((leg) => leg.includes(core))) for (const { id: stop } of stops) cutAt(work, id, core, stop)
  }
  const free = entries(getOrThrow(work.site.cables, id).cores).map(
    ([core, record]) => [core, kept.has(core) ? record : { ...record, pinned: null }] as const,
  )
  set(work, 'cables', id, 'cores', Object.fromEntries(free))
  legs.forEach((leg, side) =>
    stops.forEach((stop, i) => {
      const ends = (which: 'arrives' | 'leaves') => leg.map((core) => coreEnd(id, core, stop.id, which))
      const arrive = i > 0 ? ends('arrives') : [terminalEnd(controller, pair[side]!)]
      join(work, stop.place, [...arrive, ...(i < stops.length - 1 ? ends('leaves') : [])])
    }),
  )
}

interface Meant {
  readonly decoder: DeviceId
  readonly output: number
  readonly station: Stationed
}

/** A box that waters: its stations, and the decoders for them. */
interface Watered {
  readonly place: PlaceId
  readonly stations: readonly Stationed[]
  readonly kinds: Kinds
}
function byBox(site: Site, system: System, stations: readonly Stationed[]): Watered[] {
  const inBox = new Map<PlaceId, Stationed[]>()
  for (const one of stations) {
    const [valve] = one[1].valves
    if (valve === undefined) continue
    const { place } = getOrThrow(site.devices, valve)
    inBox.set(place, [...(inBox.get(place) ?? []), one])
  }
  const prices = decoderPrices(site)
  return [...inBox].map(([place, own]) => ({
    place,
    stations: own,
    kinds: decodersFor(own.length, system.outputs ?? 1, prices),
  }))
}

/** Decoders in the boxes that water, one output for each station, joined to both legs and to the valves. */
function putDecoders(
  work: Work,
  controller: ControllerId,
  system: System,
  boxes: readonly Watered[],
  hotOf: ReadonlyMap<DeviceId, 'a' | 'b'>,
): Meant[] {
  const isHeavy = (valve: DeviceId) =>
    system.heavyCoil_A !== null && coil_A(work.site, valve, 'holding') > system.heavyCoil_A
  return boxes.flatMap(({ place, stations, kinds }) => {
    const left = [...stations]
    return kinds.flatMap((outputs) => {
      const mine = left.splice(0, outputs)
      const tag = freeTag(work.site.devices, 'X')
      const decoder = freeId(work.site, 'devices', tag) as DeviceId
      const power = mine.some(([, s]) => s.valves.some(isHeavy)) ? 'high' : 'low'
      create(work, 'devices', decoder, { kind: 'decoder', place, tag, outputs, power })
      for (const side of [0, 1] as const)
        join(work, place, [legEndAt(work.site, controller, place, side)!, portEnd(decoder, `path_${side + 1}`)])
      const valves = mine.map(([, s]) => s.valves)
      valves.forEach((on, k) =>
        join(work, place, [portEnd(decoder, `out_${k + 1}`), ...on.map((v) => portEnd(v, hotOf.get(v)!))]),
      )
      const other = (v: DeviceId) => (hotOf.get(v) === 'a' ? 'b' : 'a')
      join(work, place, [portEnd(decoder, 'common'), ...valves.flat().map((v) => portEnd(v, other(v)))])
      return mine.map((station, output): Meant => ({ decoder, output, station }))
    })
  })
}

/** Gives decoders their numbers, and stations and the runs of programs go along; false where there are too few. */
function numberStations(work: Work, controller: ControllerId, system: System, outputs: readonly Meant[]): boolean {
  const path: PathAt & { system: System } = { ...pathOf(work.site, controller)!, system }
  const { given, none } = giveAddresses(work.site, path)
  if (none.length > 0) return false
  act(work, addressCommands(work.site, path, given))
  const numbers = new Map(given.map((g) => [g.decoder, g.addresses]))
  const [way] = path.pairs[0]!
  const addressOf = new Map(
    outputs.map(({ decoder, output, station: [, s] }) => [s.terminal, numbers.get(decoder)![output]!] as const),
  )
  for (const { station } of outputs) {
    const [id, { terminal }] = station
    set(work, 'stations', id, 'terminal', way)
    set(work, 'stations', id, 'address', addressOf.get(terminal)!)
  }
  for (const [id, program] of entries(work.site.programs)) {
    if (program.controller !== controller) continue
    const runs = program.runs.map((r) => {
      const address = r.address === null ? addressOf.get(r.terminal) : undefined
      return address === undefined ? r : { ...r, terminal: way, address }
    })
    if (runs.some((r, i) => r !== program.runs[i])) set(work, 'programs', id, 'runs', runs)
  }
  return true
}
