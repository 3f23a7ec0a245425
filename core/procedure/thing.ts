import type { WorkTarget } from '../record'
import {
  commonOf,
  entries,
  getOrThrow,
  hangingOn,
  lookUp,
  netsOf,
  terminalEnd,
  wiringOf,
  type CableId,
  type ControllerId,
  type CoreId,
  type DeviceId,
  type PlaceId,
  type Site,
  type SpliceId,
  type TemporaryStateId,
  type TerminalId,
} from '../site'

/** What a step is done on: the thing that its procedure is on, or one of those that it is unfolded over. */
export interface Thing {
  readonly target: WorkTarget
  /** A core by itself, at the box or the cabinet of the target. */
  readonly core?: { readonly cable: CableId; readonly core: CoreId }
  readonly temporary?: TemporaryStateId
}

/** Whether what a piece of work is on is still on record. */
export function isOnRecord(site: Site, target: WorkTarget): boolean {
  switch (target.kind) {
    case 'property':
      return true
    case 'controller':
      return lookUp(site.controllers, target.controller) !== undefined
    case 'terminal':
      return lookUp(lookUp(site.controllers, target.controller)?.terminals ?? {}, target.terminal) !== undefined
    case 'box':
      return lookUp(site.places, target.place) !== undefined
    case 'joint':
      return lookUp(site.splices, target.splice) !== undefined
    case 'coil':
    case 'device':
      return lookUp(site.devices, target.device) !== undefined
    case 'cable':
      return lookUp(site.cables, target.cable) !== undefined
  }
}

/** The place where a piece of work is done; null of what is done all over the property. A cable’s is its beginning. */
export function placeOf(site: Site, target: WorkTarget): PlaceId | null {
  switch (target.kind) {
    case 'property':
      return null
    case 'controller':
    case 'terminal':
      return getOrThrow(site.controllers, target.controller).place
    case 'box':
      return target.place
    case 'joint':
      return getOrThrow(site.splices, target.splice).place
    case 'coil':
    case 'device':
      return getOrThrow(site.devices, target.device).place
    case 'cable':
      return getOrThrow(site.cables, target.cable).stops[0]!.place
  }
}

/** A terminal of a controller. */
export interface Screw {
  readonly controller: ControllerId
  readonly terminal: TerminalId
}

/** The terminal that is meant to run a device, else the one that its wiring comes from; null for none. */
export function screwOf(site: Site, device: DeviceId): Screw | null {
  const station = Object.values(site.stations).find((s) => s.valves.includes(device))
  if (station) return { controller: station.controller, terminal: station.terminal }
  const point = Object.values(site.pointsOfConnection).find((p) => p.masterValve === device || p.pumpRelay === device)
  if (point?.terminal) return point.terminal
  const wiring = wiringOf(site)
  for (const [controller] of entries(site.controllers))
    for (const [terminal, { coils, switchedBy }] of hangingOn(site, wiring, controller))
      if (coils.includes(device) || switchedBy.includes(device)) return { controller, terminal }
  return null
}

/** The terminals whose net a joint is on, commons first; none where it comes from no terminal. */
export function screwsAt(site: Site, splice: SpliceId): Screw[] {
  const [end] = getOrThrow(site.splices, splice).ends
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const net = nets.of(wiring.pointOf(end!))
  return entries(site.controllers).flatMap(([controller, { terminals }]) => {
    const common = commonOf(site, controller)
    return entries(terminals)
      .filter(([terminal]) => nets.of(wiring.pointOf(terminalEnd(controller, terminal))) === net)
      .sort(([a], [b]) => Number(b === common) - Number(a === common))
      .map(([terminal]) => ({ controller, terminal }))
  })
}

/** The controller that a piece of work belongs to; the first of all where it belongs to none. Null without any. */
export function controllerFor(site: Site, target: WorkTarget): ControllerId | null {
  const own = ownController(site, target)
  return own ?? entries(site.controllers)[0]?.[0] ?? null
}

function ownController(site: Site, target: WorkTarget): ControllerId | null {
  switch (target.kind) {
    case 'controller':
    case 'terminal':
      return target.controller
    case 'coil':
    case 'device':
      return screwOf(site, target.device)?.controller ?? null
    case 'joint':
      return screwsAt(site, target.splice)[0]?.controller ?? null
    case 'cable': {
      const { stops } = getOrThrow(site.cables, target.cable)
      return entries(site.controllers).find(([, c]) => stops.some((s) => s.place === c.place))?.[0] ?? null
    }
    case 'box': {
      const joint = entries(site.splices).find(([id, s]) => s.place === target.place && screwsAt(site, id).length > 0)
      return joint ? screwsAt(site, joint[0])[0]!.controller : null
    }
    case 'property':
      return null
  }
}
