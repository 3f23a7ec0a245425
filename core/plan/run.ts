import {
  bounded,
  commonOf,
  endKey,
  entries,
  lookUp,
  getOrThrow,
  stopIndex,
  terminalEnd,
  type Cable,
  type CableId,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type PlaceId,
  type Site,
  type StationId,
  type StopId,
  type TerminalId,
} from '../site'
import type { Gauge } from '../quantity'
import { coreEnd, create, freeId, join, jointOf, part, portEnd, remove, set, type Work } from './work'

/** A run of cable from a controller: a jacket that holds common and leads, or a single common beside single leads. */
export interface PlanRun {
  readonly cable: CableId
  readonly common: CoreId
  readonly controller: ControllerId
}

/** The cables that begin at the controller and bring its common out. */
export function runsOf(site: Site, controller: ControllerId): PlanRun[] {
  const home = commonOf(site, controller)
  if (home === null) return []
  const landing = jointOf(site, terminalEnd(controller, home))
  if (landing === null) return []
  return getOrThrow(site.splices, landing).ends.flatMap((e) =>
    e.kind === 'core' && e.side === 'leaves' && getOrThrow(site.cables, e.cable).stops[0]!.id === e.stop
      ? [{ cable: e.cable, common: e.core, controller }]
      : [],
  )
}

const known = <T>(value: T, how: 'seen' | 'reported' | 'assumed' = 'reported') => ({ value, how, on: null })

/** A new run that ends in its first box. */
export function startRun(
  work: Work,
  controller: ControllerId,
  tag: string,
  kind: 'multicore' | 'single',
  gauge: Gauge | null,
  firstBox: PlaceId,
  at_m: number | null,
): PlanRun {
  const { site } = work
  const home = getOrThrow(site.controllers, controller).place
  const id = freeId(site, 'cables', tag) as CableId
  create(work, 'cables', id, {
    tag,
    kind,
    gauge: gauge && known(gauge),
    stops: [
      { id: 'home', place: home, at_m: known(0) },
      { id: stopId(null, firstBox), place: firstBox, at_m: at_m === null ? null : known(at_m) },
    ],
    cores: { common: { colour: known(site.settings.commonColour, 'assumed'), order: 0 } },
  })
  const run: PlanRun = { cable: id, common: 'common' as CoreId, controller }
  join(work, home, [terminalEnd(controller, commonOf(site, controller)!), coreEnd(id, run.common, 'home', 'leaves')])
  return run
}

function stopId(cable: Cable | null, place: PlaceId): string {
  const wanted = `s-${place}`
  let id = wanted
  for (let n = 2; cable?.stops.some((s) => s.id === id); n++) id = `${wanted}-${n}`
  return id
}

export const stopAt = (cable: Cable, place: PlaceId) => cable.stops.findIndex((s, i) => i > 0 && s.place === place)

/**
 * Takes a box into a cable: at its distance, or at the end where none is known. Where the cable becomes longer, its
 * cores go on: those joined at the old end are cut there, the common is joined on.
 */
export function reachBox(
  work: Work,
  cableId: CableId,
  common: CoreId | null,
  place: PlaceId,
  at_m: number | null,
): void {
  const cable = getOrThrow(work.site.cables, cableId)
  if (stopAt(cable, place) >= 0) {
    if (at_m !== null) setDistance(work, cableId, place, at_m)
    return
  }
  const farther = at_m === null ? -1 : cable.stops.findIndex((s, i) => i > 0 && (bounded(s.at_m)?.value ?? -1) > at_m)
  const position = farther < 0 ? cable.stops.length : farther
  const stop = { id: stopId(cable, place), place, at_m: at_m === null ? null : known(at_m) }
  if (position < cable.stops.length) {
    set(work, 'cables', cableId, 'stops', [...cable.stops.slice(0, position), stop, ...cable.stops.slice(position)])
    return
  }
  const last = cable.stops.at(-1)!
  const joined = entries(cable.cores)
    .filter(([core]) => {
      const joint = jointOf(work.site, coreEnd(cableId, core, last.id, 'arrives'))
      if (joint === null) return false
      if (getOrThrow(work.site.splices, joint).connector !== 'cap') return true
      remove(work, 'splices', joint)
      return false
    })
    .map(([core]) => core)
  set(work, 'cables', cableId, 'stops', [...cable.stops, stop])
  for (const core of joined) cutAt(work, cableId, core, last.id)
  if (common !== null && joined.includes(common))
    join(work, last.place, [coreEnd(cableId, common, last.id, 'arrives'), coreEnd(cableId, common, last.id, 'leaves')])
}

/** Cuts a core at an inner stop; nothing to do at an end or where it is cut already. */
export function cutAt(work: Work, cableId: CableId, core: CoreId, stop: StopId): void {
  const cable = getOrThrow(work.site.cables, cableId)
  const index = stopIndex(cable, stop)
  const record = getOrThrow(cable.cores, core)
  if (index <= 0 || index === cable.stops.length - 1 || record.cutAt.includes(stop)) return
  set(work, 'cables', cableId, 'cores', { ...cable.cores, [core]: { ...record, cutAt: [...record.cutAt, stop] } })
}

/** Joins a core back together at a stop where nothing else holds its ends. */
export function heal(work: Work, cableId: CableId, core: CoreId, stop: StopId): void {
  const cable = getOrThrow(work.site.cables, cableId)
  const record = getOrThrow(cable.cores, core)
  if (!record.cutAt.includes(stop)) return
  for (const side of ['arrives', 'leaves'] as const) part(work, coreEnd(cableId, core, stop, side))
  set(work, 'cables', cableId, 'cores', {
    ...cable.cores,
    [core]: { ...record, cutAt: record.cutAt.filter((s) => s !== stop) },
  })
}

/** Sets how far along its run a box lies, on the run and on the leads that go the same way. */
export function setDistance(work: Work, cableId: CableId, place: PlaceId, at_m: number | null): void {
  const run = getOrThrow(work.site.cables, cableId)
  const was = run.stops[stopAt(run, place)]?.at_m
  const before = was ? bounded(was)!.value : null
  if (before === at_m) return
  for (const [id, cable] of entries(work.site.cables)) {
    if (cable.stops[0]!.place !== run.stops[0]!.place) continue
    const index = stopAt(cable, place)
    const at = index < 0 ? undefined : (bounded(cable.stops[index]!.at_m)?.value ?? null)
    if (at === undefined || (id !== cableId && at !== before)) continue
    set(
      work,
      'cables',
      id,
      'stops',
      cable.stops.map((s, i) => (i === index ? { ...s, at_m: at_m === null ? null : known(at_m) } : s)),
    )
  }
}

/** Caps every end of a cable's cores that nothing holds, and takes away caps of ends that are no more. */
export function capLoose(work: Work, cableId: CableId): void {
  const cable = lookUp(work.site.cables, cableId)
  if (!cable) return
  const last = cable.stops.length - 1
  for (const [core, { cutAt: cuts }] of entries(cable.cores)) {
    cable.stops.forEach((stop, i) => {
      if (i > 0 && i < last && !cuts.includes(stop.id)) return
      for (const side of ['arrives', 'leaves'] as const) {
        if ((side === 'arrives' && i === 0) || (side === 'leaves' && i === last)) continue
        const end = coreEnd(cableId, core, stop.id, side)
        if (jointOf(work.site, end) === null)
          create(work, 'splices', freeId(work.site, 'splices', `${cableId}-${core}-cap`), {
            place: stop.place,
            connector: 'cap',
            ends: [end],
          })
      }
    })
  }
}

/**
 * The core of the jacket that serves nothing yet, capped or loose everywhere, and is kept for this station or for
 * nothing.
 */
export function spareCore(site: Site, cableId: CableId, station: StationId | null = null): CoreId | null {
  const cable = getOrThrow(site.cables, cableId)
  const held = new Set(entries(site.splices).flatMap(([, s]) => (s.connector === 'cap' ? [] : s.ends.map(endKey))))
  const rank = (c: Cable['cores'][CoreId]) => (c!.pinned?.use === 'station' ? 0 : 1)
  const free = entries(cable.cores)
    .filter(([, c]) => c.pinned === null || (c.pinned.use === 'station' && c.pinned.station === station))
    .sort(([, a], [, b]) => rank(a) - rank(b) || a.order - b.order)
    .find(([core]) =>
      cable.stops.every((s) =>
        (['arrives', 'leaves'] as const).every((side) => !held.has(endKey(coreEnd(cableId, core, s.id, side)))),
      ),
    )
  return free?.[0] ?? null
}

/** A fresh core in a jacket. */
export function addCore(work: Work, cableId: CableId, colour: string | null): CoreId {
  const cable = getOrThrow(work.site.cables, cableId)
  const order = Math.max(-1, ...Object.values(cable.cores).map((c) => c.order)) + 1
  let id = `c${order}`
  while (lookUp(cable.cores, id)) id += 'x'
  set(work, 'cables', cableId, 'cores', {
    ...cable.cores,
    [id]: { colour: colour === null ? null : known(colour), order },
  })
  return id as CoreId
}

/** Brings a valve's common side to the run's common in its box, cutting the common there the first time. */
export function tapCommon(work: Work, run: PlanRun, place: PlaceId, device: string): void {
  const cable = getOrThrow(work.site.cables, run.cable)
  const index = stopAt(cable, place)
  const stop = cable.stops[index]!
  cutAt(work, run.cable, run.common, stop.id)
  const ends = [
    coreEnd(run.cable, run.common, stop.id, 'arrives'),
    ...(index < cable.stops.length - 1 ? [coreEnd(run.cable, run.common, stop.id, 'leaves')] : []),
    portEnd(device, 'b'),
  ]
  const cap = jointOf(work.site, ends[0]!)
  if (cap !== null && getOrThrow(work.site.splices, cap).connector === 'cap') remove(work, 'splices', cap)
  join(work, place, ends)
}

/**
 * Takes a free core of the jacket from a terminal to a valve: off its caps, cut in the valve's box, landed and
 * joined.
 */
export function bringCore(
  work: Work,
  run: PlanRun,
  core: CoreId,
  terminal: TerminalId,
  valve: DeviceId,
  place: PlaceId,
): void {
  for (const s of getOrThrow(work.site.cables, run.cable).stops)
    for (const side of ['arrives', 'leaves'] as const) part(work, coreEnd(run.cable, core, s.id, side))
  const { stops } = getOrThrow(work.site.cables, run.cable)
  const stop = stops[stopAt(getOrThrow(work.site.cables, run.cable), place)]!
  cutAt(work, run.cable, core, stop.id)
  join(work, stops[0]!.place, [terminalEnd(run.controller, terminal), coreEnd(run.cable, core, stops[0]!.id, 'leaves')])
  join(work, place, [portEnd(valve, 'a'), coreEnd(run.cable, core, stop.id, 'arrives')])
}
