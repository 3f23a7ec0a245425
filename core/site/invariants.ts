import { refusal, type Path, type Refusal } from '../refusal'
import { bounded } from './bounded'
import type { End } from './end'
import { endKey } from './end-key'
import { entries, lookUp } from './look-up'
import { portsOf } from './ports'
import type { Cable } from './cable'
import type { PlaceId, SystemId } from './ids'
import { pathsOf } from './paths'
import type { Site } from './site'
import { stopIndex } from './stretch'

/**
 * Everything that must hold of a whole site and that no single field can promise: references lead somewhere, tags are
 * unique in their scope, stops are in order, an end exists, lies where its joint lies and is in one joint only.
 * @returns what is broken, all of it; nothing for a good site
 */
export function brokenInvariants(site: Site): Refusal[] {
  const broken = [
    ...brokenTags(site),
    ...brokenReferences(site),
    ...entries(site.cables).flatMap(([id, c]) => brokenCable(site, c, ['cables', id])),
    ...brokenSplices(site),
  ]
  // What hangs together can be read only where every end is where it says.
  return broken.length > 0 ? broken : mixedSystems(site)
}

function brokenTags(site: Site): Refusal[] {
  const scopes: [Path, [string, { tag: string | null }][]][] = [
    [['places'], entries(site.places)],
    [['controllers'], entries(site.controllers)],
    [['cables'], entries(site.cables)],
    ...entries(site.controllers).map(([id, c]): [Path, [string, { tag: string }][]] => [
      ['controllers', id, 'terminals'],
      entries(c.terminals),
    ]),
  ]
  const broken = scopes.flatMap(([path, records]) =>
    repeats(records, ([, r]) => r.tag).map(([id, r]) => refusal('tag_twice', [...path, id, 'tag'], { tag: r.tag! })),
  )
  for (const [id, c] of entries(site.controllers)) {
    const commons = entries(c.terminals).filter(([, t]) => t.role === 'common')
    if (commons.length > 1) broken.push(refusal('two_commons', ['controllers', id, 'terminals'], { controller: c.tag }))
  }
  const stations = repeats(entries(site.stations), ([, s]) => `${s.controller} ${s.address ?? `:${s.terminal}`}`)
  const programs = repeats(entries(site.programs), ([, p]) => `${p.controller} ${p.name}`)
  return [
    ...broken,
    ...programs.map(([id, p]) => refusal('program_twice', ['programs', id, 'name'], { name: p.name })),
    ...stations.map(([id, s]) =>
      s.address === null
        ? refusal('terminal_taken', ['stations', id, 'terminal'], { name: s.name })
        : refusal('address_taken', ['stations', id, 'address'], { name: s.name, address: s.address }),
    ),
  ]
}

/** The records whose key (not null) an earlier one has already. */
function repeats<T>(records: readonly T[], keyOf: (record: T) => string | null): T[] {
  const seen = new Set<string>()
  return records.filter((record) => {
    const key = keyOf(record)
    if (key === null) return false
    const again = seen.has(key)
    seen.add(key)
    return again
  })
}

function brokenReferences(site: Site): Refusal[] {
  const broken: Refusal[] = []
  const need = (
    collection: 'places' | 'controllers' | 'devices' | 'coilKinds' | 'pointsOfConnection' | 'systems',
    id: string | null,
    path: Path,
  ) => {
    if (id !== null && !lookUp(site[collection], id)) broken.push(refusal('points_nowhere', path, { id, collection }))
  }
  const needTerminal = (controller: string, terminal: string, path: Path) => {
    need('controllers', controller, [...path, 'controller'])
    const of = lookUp(site.controllers, controller)
    if (of && !lookUp(of.terminals, terminal))
      broken.push(refusal('points_nowhere', [...path, 'terminal'], { id: terminal, collection: 'terminals' }))
  }
  for (const [id, c] of entries(site.controllers)) {
    need('places', c.place, ['controllers', id, 'place'])
    need('systems', c.system, ['controllers', id, 'system'])
  }
  for (const [id, d] of entries(site.devices)) {
    need('places', d.place, ['devices', id, 'place'])
    need('coilKinds', d.coilKind, ['devices', id, 'coilKind'])
    if (d.kind === 'decoder') need('systems', d.system, ['devices', id, 'system'])
    if (d.coilKind !== null && d.kind !== 'coil' && d.kind !== 'relay')
      broken.push(refusal('no_coil_here', ['devices', id, 'coilKind'], { kind: d.kind }))
  }
  for (const [id, s] of entries(site.stations)) {
    needTerminal(s.controller, s.terminal, ['stations', id])
    s.valves.forEach((v, i) => need('devices', v, ['stations', id, 'valves', i]))
    need('pointsOfConnection', s.pointOfConnection, ['stations', id, 'pointOfConnection'])
  }
  for (const [id, p] of entries(site.pointsOfConnection)) {
    for (const role of ['masterValve', 'pumpRelay', 'flowSensor'] as const)
      need('devices', p[role], ['pointsOfConnection', id, role])
    if (p.terminal) needTerminal(p.terminal.controller, p.terminal.terminal, ['pointsOfConnection', id, 'terminal'])
  }
  for (const [id, p] of entries(site.programs)) {
    need('controllers', p.controller, ['programs', id, 'controller'])
    const of = lookUp(site.controllers, p.controller)
    p.runs.forEach(({ terminal }, i) => {
      if (of && !lookUp(of.terminals, terminal))
        broken.push(
          refusal('points_nowhere', ['programs', id, 'runs', i, 'terminal'], { id: terminal, collection: 'terminals' }),
        )
    })
  }
  return broken
}

function brokenCable(site: Site, cable: Cable, path: Path): Refusal[] {
  const broken: Refusal[] = []
  let reached_m = 0
  const ids = cable.stops.map((s) => s.id)
  cable.stops.forEach((stop, i) => {
    if (!lookUp(site.places, stop.place))
      broken.push(refusal('points_nowhere', [...path, 'stops', i, 'place'], { id: stop.place, collection: 'places' }))
    if (ids.indexOf(stop.id) < i) broken.push(refusal('stop_twice', [...path, 'stops', i, 'id'], { id: stop.id }))
    const at = bounded(stop.at_m)
    if (at && at.high < reached_m)
      broken.push(refusal('stop_before', [...path, 'stops', i, 'at_m'], { at_m: at.high, reached_m }))
    if (at) reached_m = Math.max(reached_m, at.low)
  })
  const inner = new Set<string>(ids.slice(1, -1))
  for (const [id, core] of entries(cable.cores)) {
    core.cutAt.forEach((stop, i) => {
      if (!inner.has(stop)) broken.push(refusal('not_an_inner_stop', [...path, 'cores', id, 'cutAt', i], { id: stop }))
      if (core.cutAt.indexOf(stop) < i)
        broken.push(refusal('stop_twice', [...path, 'cores', id, 'cutAt', i], { id: stop }))
    })
    for (const stop of Object.keys(core.colourAt))
      if (!ids.includes(stop as never))
        broken.push(refusal('no_such_stop', [...path, 'cores', id, 'colourAt', stop], { id: stop }))
    for (const stop of Object.keys(core.conditions))
      if (!ids.slice(0, -1).includes(stop as never))
        broken.push(refusal('no_stretch_here', [...path, 'cores', id, 'conditions', stop], { id: stop }))
  }
  for (const stop of Object.keys(cable.bends))
    if (!ids.slice(0, -1).includes(stop as never))
      broken.push(refusal('no_stretch_here', [...path, 'bends', stop], { id: stop }))
  if (cable.kind === 'jumper' && new Set(cable.stops.map((s) => s.place)).size > 1)
    broken.push(refusal('jumper_leaves_box', [...path, 'stops']))
  return broken
}

/** Two systems on one path: neither’s decoders would answer. A decoder that says nothing is of its path’s system. */
function mixedSystems(site: Site): Refusal[] {
  const marked = entries(site.devices).flatMap(([id, d]) =>
    d.kind === 'decoder' && d.system !== null ? [{ id, tag: d.tag ?? id, system: d.system }] : [],
  )
  if (marked.length === 0) return []
  const paths = new Map(pathsOf(site).flatMap((p) => p.decoders.map((d) => [d.device, p.systemId] as const)))
  const name = (system: SystemId) => lookUp(site.systems, system)?.name ?? system
  return marked.flatMap(({ id, tag, system }) => {
    const path = paths.get(id) ?? null
    return path === null || path === system
      ? []
      : [refusal('decoder_of_another', ['devices', id, 'system'], { decoder: tag, is: name(system), path: name(path) })]
  })
}

function brokenSplices(site: Site): Refusal[] {
  const broken: Refusal[] = []
  const held = new Map<string, string>()
  for (const [id, splice] of entries(site.splices)) {
    const path: Path = ['splices', id]
    if (!lookUp(site.places, splice.place))
      broken.push(refusal('points_nowhere', [...path, 'place'], { id: splice.place, collection: 'places' }))
    if (splice.connector === 'cap' && splice.ends.length !== 1)
      broken.push(refusal('cap_holds_one', [...path, 'ends'], { count: splice.ends.length }))
    const lands = splice.ends.some((e) => e.kind === 'terminal')
    if (lands !== (splice.connector === 'terminal'))
      broken.push(refusal('landing_needs_terminal', [...path, 'connector']))
    splice.ends.forEach((end, i) => {
      const where = placeOfEnd(site, end)
      if (where === null) broken.push(refusal('no_such_end', [...path, 'ends', i], { end: endKey(end) }))
      else if (where !== splice.place)
        broken.push(
          refusal('end_elsewhere', [...path, 'ends', i], {
            end: endKey(end),
            there: tagOfPlace(site, where),
            here: tagOfPlace(site, splice.place),
          }),
        )
      const other = held.get(endKey(end))
      if (other !== undefined)
        broken.push(refusal('end_in_two_joints', [...path, 'ends', i], { end: endKey(end), other }))
      held.set(endKey(end), id)
    })
  }
  return broken
}

const tagOfPlace = (site: Site, id: string) => lookUp(site.places, id)?.tag ?? id

/** Where an end is, or null when there is no such end. */
export function placeOfEnd(site: Site, end: End): PlaceId | null {
  switch (end.kind) {
    case 'earth':
      return lookUp(site.places, end.place) ? end.place : null
    case 'terminal': {
      const of = lookUp(site.controllers, end.controller)
      return of && lookUp(of.terminals, end.terminal) ? of.place : null
    }
    case 'port': {
      const of = lookUp(site.devices, end.device)
      return of && portsOf(of).includes(end.port) ? of.place : null
    }
    case 'core': {
      const cable = lookUp(site.cables, end.cable)
      const core = cable && lookUp(cable.cores, end.core)
      const index = cable ? stopIndex(cable, end.stop) : -1
      if (!cable || !core || index < 0) return null
      const last = cable.stops.length - 1
      const exists =
        index === 0 ? end.side === 'leaves' : index === last ? end.side === 'arrives' : core.cutAt.includes(end.stop)
      return exists ? cable.stops[index]!.place : null
    }
  }
}
