import type { Gauge } from '../quantity'
import { commandsBetween, coreEnd, create, freeId, join, portEnd, set, type Work } from '../plan'
import { accepted, refusal, refused, type Outcome, type Refusal } from '../refusal'
import { carried, limitsOf, misfitOf, seenOf } from '../splice'
import {
  entries,
  getOrThrow,
  lookUp,
  pathOf,
  terminalEnd,
  type CableId,
  type Command,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type PlaceId,
  type Site,
  type Splice,
  type StopId,
  type System,
  type SystemId,
} from '../site'
import { addressCommands, giveAddresses } from './addresses'
import { freeTag, legEndAt } from './join'

/** A box of a path that is planned: how far from the box before it, or the one that is named, and what it waters. */
export interface PathRow {
  readonly line: number
  readonly box: string
  /** Tag of the box the path comes from; null: the row before, or the controller for the first. */
  readonly from: string | null
  readonly length_m: number | null
  readonly valves: readonly string[]
}

/** The colours of a new path: one to one side, everywhere. */
const LEGS = ['red', 'blue'] as const

/**
 * The changes that give a controller a path with one way out that speaks a system; the system is put on record with it.
 */
export function beginPathCommands(site: Site, controller: ControllerId, system: System): Command[] {
  const work: Work = { site }
  const known = entries(site.systems).find(([, s]) => JSON.stringify(s) === JSON.stringify(system))?.[0]
  const id = known ?? (freeId(site, 'systems', system.name) as SystemId)
  if (!known) create(work, 'systems', id, system)
  set(work, 'controllers', controller, 'system', id)
  if (!pathOf(site, controller)) addWayOut(work, controller)
  return commandsBetween(site, work.site)
}

/** The changes that give the path of a controller one way out more. */
export function wayOutCommands(site: Site, controller: ControllerId): Command[] {
  const work: Work = { site }
  addWayOut(work, controller)
  return commandsBetween(site, work.site)
}

function addWayOut(work: Work, controller: ControllerId): void {
  const { kind, terminals } = getOrThrow(work.site.controllers, controller)
  const order = Math.max(-1, ...Object.values(terminals).map((t) => t.order)) + 1
  const tags = new Set(Object.values(terminals).map((t) => t.tag))
  const isFree = (n: number) => !tags.has(`P${n}`) && !tags.has(`P${n + 1}`)
  let n = 1
  while (!isFree(n)) n++
  const screws = Object.fromEntries(
    [n, n + 1].map((number, i) => [`P${number}`, { tag: `P${number}`, role: 'path' as const, order: order + i }]),
  )
  set(work, 'controllers', controller, 'terminals', { ...terminals, ...screws })
  const hasStations = Object.values(terminals).some((t) => t.role === 'station')
  if (kind === 'conventional') set(work, 'controllers', controller, 'kind', hasStations ? 'hybrid' : 'two_wire')
}

/**
 * A path from a list of its boxes: the cable, a decoder with as many outputs as its box has valves and its system
 * allows, valves, joints of one colour to one side, numbers, and a station each.
 * @param gauge of the new cable; null leaves it open for sizing
 */
export function planPath(
  site: Site,
  controller: ControllerId,
  rows: readonly PathRow[],
  gauge: Gauge | null,
): Outcome<Command[]> {
  const path = pathOf(site, controller)
  if (!path) return refused(refusal('no_path_screws', ['controllers', controller]))
  const { system } = path
  if (!system) return refused(refusal('path_without_system', ['controllers', controller, 'system']))
  const wrong = brokenRows(site, controller, rows)
  if (wrong.length > 0) return refused(...wrong)
  const work: Work = { site }
  const home = getOrThrow(site.controllers, controller)
  const placeAt = new Map<string, PlaceId>(entries(site.places).map(([id, p]) => [p.tag, id]))
  for (const { box } of rows)
    if (!placeAt.has(box)) {
      const id = freeId(work.site, 'places', box) as PlaceId
      create(work, 'places', id, { tag: box, kind: 'valve_box' })
      placeAt.set(box, id)
    }
  const spotOf = (tag: string | null) => (tag === null ? home.place : placeAt.get(tag)!)
  // A stretch that begins where the one before ended goes on in the same jacket; any other is a cable of its own.
  const runs: { from: string | null; rows: PathRow[] }[] = []
  rows.forEach((row, i) => {
    const from = row.from ?? rows[i - 1]?.box ?? null
    const isHome = from !== null && placeAt.get(from) === home.place
    const run = runs.at(-1)
    if (run && from !== null && run.rows.at(-1)!.box === from) run.rows.push(row)
    else runs.push({ from: isHome ? null : from, rows: [row] })
  })
  let wayOut = takenWays(site, controller)
  for (const run of runs) {
    const cable = layCable(work, spotOf(run.from), run.rows, placeAt, gauge)
    LEGS.forEach((leg, side) => {
      const core = leg as unknown as CoreId
      const { stops } = getOrThrow(work.site.cables, cable)
      const start = coreEnd(cable, core, stops[0]!.id, 'leaves')
      const before = run.from === null ? null : legEndAt(work.site, controller, spotOf(run.from), side as 0 | 1)
      if (run.from === null) {
        const pair = path.pairs[Math.min(wayOut, path.pairs.length - 1)]!
        join(work, home.place, [terminalEnd(controller, pair[side]!), start])
      } else join(work, spotOf(run.from), before ? [before, start] : [start])
      stops.slice(1).forEach((stop, i) => {
        const onward = i < stops.length - 2 ? [coreEnd(cable, core, stop.id, 'leaves')] : []
        join(work, stop.place, [coreEnd(cable, core, stop.id, 'arrives'), ...onward])
      })
    })
    if (run.from === null) wayOut++
  }
  const meant = rows.flatMap((row) => putDecoders(work, controller, system, row, placeAt.get(row.box)!))
  for (const [id, s] of entries(work.site.splices))
    if (s.connector === 'unknown' && !lookUp(site.splices, id))
      set(work, 'splices', id, 'connector', jointFor(work.site, system, s))
  // Numbers last: they go outward along the path as it now lies.
  const laid = pathOf(work.site, controller)!
  const { given, none } = giveAddresses(work.site, { ...laid, system })
  if (none.length > 0)
    return refused(refusal('no_number_left', ['systems', path.systemId!, 'addresses'], { count: none.length }))
  for (const c of addressCommands(work.site, { ...laid, system }, given))
    if (c.do === 'set') set(work, c.in, c.id, c.field, c.value as never)
  const numberOf = new Map(given.map((g) => [g.decoder, g.addresses]))
  for (const { decoder, output, valve, name } of meant) {
    const address = numberOf.get(decoder)![output]!
    create(work, 'stations', freeId(work.site, 'stations', `${home.tag}-n${address}`), {
      controller,
      terminal: path.pairs[0]![0],
      address,
      name,
      valves: [valve],
    })
  }
  return accepted(commandsBetween(site, work.site))
}

function brokenRows(site: Site, controller: ControllerId, rows: readonly PathRow[]): Refusal[] {
  const home = getOrThrow(site.controllers, controller).place
  const known = new Map(entries(site.places).map(([id, p]) => [p.tag, id]))
  const wrong: Refusal[] = rows.length === 0 ? [refusal('empty_list')] : []
  const seen = new Set<string>()
  rows.forEach(({ line, box, from }, i) => {
    const at = [`line ${line}`]
    if (seen.has(box) || known.get(box) === home) wrong.push(refusal('box_twice', [...at, 'box'], { tag: box }))
    const before = from ?? (i === 0 ? null : rows[i - 1]!.box)
    const isHome = before === null || known.get(before) === home
    const there = before === null ? undefined : known.get(before)
    const hasPath = there !== undefined && legEndAt(site, controller, there, 0) !== null
    if (!isHome && !seen.has(before!) && !hasPath)
      wrong.push(refusal('no_path_at_box', [...at, 'from'], { tag: before! }))
    seen.add(box)
  })
  return wrong
}

/** How many ways out of the controller have a conductor already. */
function takenWays(site: Site, controller: ControllerId): number {
  const landed = new Set(
    entries(site.splices).flatMap(([, s]) =>
      s.ends.length > 1
        ? s.ends.flatMap((e) => (e.kind === 'terminal' && e.controller === controller ? [e.terminal] : []))
        : [],
    ),
  )
  return pathOf(site, controller)!.pairs.filter(([first]) => landed.has(first)).length
}

function layCable(
  work: Work,
  start: PlaceId,
  rows: readonly PathRow[],
  placeAt: ReadonlyMap<string, PlaceId>,
  gauge: Gauge | null,
): CableId {
  const tag = freeTag(work.site.cables, 'K')
  const id = freeId(work.site, 'cables', tag) as CableId
  let at_m: number | null = 0
  const places = [start, ...rows.map((r) => placeAt.get(r.box)!)]
  const stops = places.map((place, i) => {
    const step = i === 0 ? 0 : rows[i - 1]!.length_m
    at_m = at_m === null || step === null ? null : at_m + step
    return {
      id: `s${i}` as StopId,
      place,
      at_m: at_m === null ? null : { value: at_m, how: 'assumed' as const, on: null },
    }
  })
  const inner = stops.slice(1, -1).map((s) => s.id)
  create(work, 'cables', id, {
    tag,
    kind: 'twisted_pair',
    gauge: gauge && { value: gauge, how: 'assumed' },
    stops,
    cores: Object.fromEntries(
      LEGS.map((leg, order) => [leg, { colour: { value: leg, how: 'assumed' as const }, cutAt: inner, order }]),
    ),
  })
  return id
}

interface Meant {
  readonly decoder: DeviceId
  readonly output: number
  readonly valve: DeviceId
  readonly name: string
}

/** Decoders for the valves of a box, each with as many outputs as it is needed for, joined to path and coils. */
function putDecoders(work: Work, controller: ControllerId, system: System, row: PathRow, place: PlaceId): Meant[] {
  const most = system.outputs ?? 1
  const meant: Meant[] = []
  for (let i = 0; i < row.valves.length; i += most) {
    const names = row.valves.slice(i, i + most)
    const tag = freeTag(work.site.devices, 'X')
    const decoder = freeId(work.site, 'devices', tag) as DeviceId
    create(work, 'devices', decoder, { kind: 'decoder', place, tag, outputs: names.length })
    ;([0, 1] as const).forEach((side) => {
      const end = legEndAt(work.site, controller, place, side)
      if (end) join(work, place, [end, portEnd(decoder, `path_${side + 1}`)])
    })
    names.forEach((name, k) => {
      const valveTag = freeTag(work.site.devices, 'Y')
      const valve = freeId(work.site, 'devices', valveTag) as DeviceId
      create(work, 'devices', valve, { kind: 'coil', place, tag: valveTag })
      join(work, place, [portEnd(decoder, `out_${k + 1}`), portEnd(valve, 'a')])
      join(work, place, [portEnd(decoder, 'common'), portEnd(valve, 'b')])
      meant.push({ decoder, output: k, valve, name })
    })
  }
  return meant
}

/**
 * The connector of a planned joint: of those that the system names the first that is carried and holds its conductors,
 * else the first that holds them, else the first it names. A system that names none leaves it open.
 */
function jointFor(site: Site, { joints }: System, { ends }: Pick<Splice, 'ends'>): Splice['connector'] {
  const areas = ends.map((end) => seenOf(site, end).area_mm2)
  const isCarried = (kind: string) => carried(site.settings).some((c) => c.kind === kind)
  const holding = joints.filter((kind) => {
    const limits = limitsOf(site.settings, kind)
    return limits !== null && misfitOf(limits, areas) === null
  })
  return holding.find(isCarried) ?? holding[0] ?? joints[0] ?? 'unknown'
}
