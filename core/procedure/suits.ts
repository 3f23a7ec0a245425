import { targetKey, type Procedure, type StepCondition, type Suits, type WorkTarget } from '../record'
import {
  byTag,
  entries,
  getOrThrow,
  placesOnPaths,
  terminalsInOrder,
  type ControllerId,
  type Site,
  type Splice,
} from '../site'
import { unlandedAt } from '../cabinet'
import { isMade } from '../splice'
import { SHIPPED } from './shipped'
import { controllerFor } from './thing'

const pointOf = (site: Site, controller: ControllerId) =>
  Object.values(site.pointsOfConnection).filter((p) => p.terminal?.controller === controller)
const hasPath = (site: Site, controller: ControllerId) =>
  getOrThrow(site.controllers, controller).kind !== 'conventional'
const hasSensorTerminals = (site: Site, controller: ControllerId) => {
  const { sensor, terminals } = getOrThrow(site.controllers, controller)
  return sensor.closedBy !== 'unknown' || Object.values(terminals).some((t) => t.role === 'sensor')
}

/** Whether a condition holds at what a procedure is done on; without any controller none of a controller’s does. */
export function holds(site: Site, condition: StepCondition, target: WorkTarget): boolean {
  const controller = controllerFor(site, target)
  if (controller === null) return false
  const record = getOrThrow(site.controllers, controller)
  switch (condition) {
    case 'has_bays':
      return record.bays.length > 0
    case 'has_master':
      return pointOf(site, controller).some((p) => p.masterValve !== null)
    case 'has_relay':
      return pointOf(site, controller).some((p) => p.pumpRelay !== null)
    case 'has_path':
      return hasPath(site, controller)
    case 'has_remote_port':
      return record.remotePort !== null
    case 'has_sensor':
      return record.sensor.closedBy === 'sensor'
    case 'no_sensor':
      return record.sensor.closedBy !== 'sensor'
    case 'has_spares':
      return unlandedAt(site, record.place).length > 0
  }
}

const MAKESHIFT: readonly Splice['connector'][] = ['dry_nut', 'bare_twist', 'unknown']
function jointSuits(splice: Splice, suits: Suits): boolean {
  if (splice.connector === 'cap' || splice.connector === 'terminal') return false
  if (suits === 'made') return isMade(splice) || MAKESHIFT.includes(splice.connector)
  return suits === 'any' || splice.connector === suits
}

function controllerSuits(site: Site, controller: ControllerId, suits: Suits): boolean {
  const target: WorkTarget = { kind: 'controller', controller }
  switch (suits) {
    case 'with_master':
      return holds(site, 'has_master', target)
    case 'with_relay':
      return holds(site, 'has_relay', target)
    case 'with_bays':
      return holds(site, 'has_bays', target)
    case 'with_remote_port':
      return holds(site, 'has_remote_port', target)
    case 'with_sensor_terminals':
      return hasSensorTerminals(site, controller)
    case 'with_path':
      return hasPath(site, controller)
    default:
      return suits === 'any'
  }
}

/** The procedures that a thing of the property suits, in the order of the work: ours and those of a company. */
export const proceduresOn = (site: Site, target: WorkTarget, own: readonly Procedure[] = []): Procedure[] =>
  [...SHIPPED, ...own].filter(
    (p) => p.on === target.kind && targetsOf(site, p).some((other) => targetKey(other) === targetKey(target)),
  )

/** The procedure that makes a joint, by its connector; null of what no procedure makes. */
export function makingOf(site: Site, target: WorkTarget): Procedure | null {
  if (target.kind !== 'joint') return null
  const { connector } = getOrThrow(site.splices, target.splice)
  return SHIPPED.find((p) => p.on === 'joint' && p.suits === connector) ?? null
}

/** Everything on the property that a procedure can be done on, in the order of tags and doors. */
export function targetsOf(site: Site, { on, suits }: Pick<Procedure, 'on' | 'suits'>): WorkTarget[] {
  switch (on) {
    case 'property':
      return [{ kind: 'property' }]
    case 'controller':
      return entries(site.controllers)
        .filter(([controller]) => controllerSuits(site, controller, suits))
        .sort(([, a], [, b]) => byTag(a.tag, b.tag))
        .map(([controller]) => ({ kind: 'controller', controller }))
    case 'terminal':
      return entries(site.controllers)
        .sort(([, a], [, b]) => byTag(a.tag, b.tag))
        .flatMap(([controller]) =>
          terminalsInOrder(site, controller).map((terminal): WorkTarget => ({
            kind: 'terminal',
            controller,
            terminal,
          })),
        )
    case 'box': {
      // Until the first length of a path is on record, every box may become one of its own.
      const onPaths = placesOnPaths(site)
      const isPlanned = onPaths.size === 0 && entries(site.controllers).some(([c]) => hasPath(site, c))
      return entries(site.places)
        .filter(([id, p]) => p.kind !== 'cabinet' && (suits !== 'with_path' || isPlanned || onPaths.has(id)))
        .sort(([, a], [, b]) => byTag(a.tag, b.tag))
        .map(([place]) => ({ kind: 'box', place }))
    }
    case 'joint':
      return entries(site.splices)
        .filter(([, s]) => jointSuits(s, suits))
        .sort(([a, x], [b, y]) => byTag(site.places[x.place]!.tag, site.places[y.place]!.tag) || byTag(a, b))
        .map(([splice]) => ({ kind: 'joint', splice }))
    case 'coil':
      return entries(site.devices)
        .filter(([, d]) => d.kind === 'coil')
        .sort(([a, x], [b, y]) => byTag(x.tag ?? a, y.tag ?? b))
        .map(([device]) => ({ kind: 'coil', device }))
    case 'device':
      return entries(site.devices)
        .filter(([, d]) => suits === 'any' || d.kind === suits)
        .sort(([a, x], [b, y]) => byTag(x.tag ?? a, y.tag ?? b))
        .map(([device]) => ({ kind: 'device', device }))
    case 'cable':
      return entries(site.cables)
        .filter(([, c]) => c.kind !== 'jumper' && (suits !== 'multicore' || c.kind === 'multicore'))
        .sort(([a, x], [b, y]) => byTag(x.tag ?? a, y.tag ?? b))
        .map(([cable]) => ({ kind: 'cable', cable }))
  }
}
