import { doorOf, masterSums } from '../cabinet'
import {
  commonOf,
  deviceName,
  entries,
  getOrThrow,
  lookUp,
  pointAt,
  stationAt,
  terminalsInOrder,
  type CoilKind,
  type ControllerId,
  type DeviceKind,
  type Place,
  type Site,
} from '../site'
import { lastOutput, sequencersOf } from '../sequencer'
import { seenOf, STRIP_mm, type ConnectorKind, type Seen } from '../splice'
import { controllerFor, placeOf, screwOf, screwsAt, type Screw, type Thing } from './thing'

/** What a step can say of the thing it is done on. Whatever the record does not know is null. */
export interface Told {
  readonly place: { readonly tag: string; readonly name: string; readonly kind: Place['kind'] } | null
  readonly controller: { readonly tag: string; readonly name: string } | null
  /** As the door has it. */
  readonly terminal: string | null
  readonly common: string | null
  readonly master: string | null
  /** The station, the valve or the point of connection by its name. */
  readonly name: string | null
  readonly device: { readonly tag: string; readonly kind: DeviceKind } | null
  readonly coil: Pick<CoilKind, 'name' | 'resistance_ohm'> | null
  /** What is taken in hand: its colour, null where nobody noted it, and the cable or device it comes from. */
  readonly conductors: readonly Pick<Seen, 'colour' | 'from' | 'way'>[]
  readonly connector: ConnectorKind | null
  readonly strip_mm: number | null
  readonly ends: number | null
  readonly cable: string | null
  readonly stations: number | null
  readonly limit_A: number | null
  readonly sum_A: number | null
  readonly temporary: { readonly what: string; readonly since: string } | null
  readonly commonColour: string
  /** Of a sequencer: the valve that comes last in its cycle. */
  readonly lastValve: string | null
}

/** What the record tells of a thing: its names, colours, connector, limits. */
export function toldOf(site: Site, { target, core, temporary }: Thing): Told {
  const controller = controllerFor(site, target)
  const record = controller === null ? null : getOrThrow(site.controllers, controller)
  const at = placeOf(site, target)
  const place = at === null ? null : getOrThrow(site.places, at)
  const screw = screwFor(site, target)
  const sum = controller === null ? undefined : masterSums(site, controller)[0]
  const deviceId = target.kind === 'coil' || target.kind === 'device' ? target.device : null
  const device = deviceId && getOrThrow(site.devices, deviceId)
  const splice = target.kind === 'joint' ? getOrThrow(site.splices, target.splice) : null
  const state = temporary === undefined ? undefined : lookUp(site.temporaryStates, temporary)
  const cable = core?.cable ?? (target.kind === 'cable' ? target.cable : null)
  const common = controller && commonOf(site, controller)
  const master = record && Object.values(record.terminals).find((t) => t.role === 'master')
  return {
    place: place && { tag: place.tag, name: place.name, kind: place.kind },
    controller: record && { tag: record.tag, name: record.name },
    terminal: screw && doorLabel(site, screw),
    common: controller && common && doorLabel(site, { controller, terminal: common }),
    master: master ? master.label || master.tag : null,
    name:
      (device && device.name) ||
      (screw && (stationAt(site, screw)?.[1].name ?? pointAt(site, screw)?.[1].name ?? null)) ||
      null,
    device: device && { tag: device.tag ?? deviceId, kind: device.kind },
    coil: (device?.coilKind && lookUp(site.coilKinds, device.coilKind)) || null,
    conductors: conductorsOf(site, { target, ...(core ? { core } : {}) }),
    connector: splice?.connector ?? null,
    strip_mm: splice ? STRIP_mm[splice.connector] : target.kind === 'terminal' ? STRIP_mm.terminal : null,
    ends: splice?.ends.length ?? null,
    cable: cable && (getOrThrow(site.cables, cable).tag ?? (getOrThrow(site.cables, cable).name || cable)),
    stations:
      controller && terminalsInOrder(site, controller).filter((t) => record!.terminals[t]!.role === 'station').length,
    limit_A: record?.masterLimit_A ?? null,
    sum_A: sum?.sum_A ?? null,
    temporary: state ? { what: state.what, since: state.since } : null,
    commonColour: site.settings.commonColour,
    lastValve: device?.kind === 'sequencer' && controller ? lastValve(site, controller, deviceId!) : null,
  }
}

function lastValve(site: Site, controller: ControllerId, device: string): string | null {
  const sequenced = sequencersOf(site, controller).find((q) => q.device === device)
  const [valve] = (sequenced && sequenced.outputs[lastOutput(sequenced)]) ?? []
  return valve === undefined ? null : deviceName(site, valve)
}

const doorLabel = (site: Site, { controller, terminal }: Screw): string => {
  const { tag, label } = getOrThrow(getOrThrow(site.controllers, controller).terminals, terminal)
  return label || tag
}

/** The terminal that a step speaks of; of a joint of the common, the one of a coil that hangs there. */
function screwFor(site: Site, target: Thing['target']): Screw | null {
  if (target.kind === 'terminal') return target
  if (target.kind === 'coil' || target.kind === 'device') return screwOf(site, target.device)
  if (target.kind !== 'joint') return null
  const own = screwsAt(site, target.splice)[0] ?? null
  if (!own || own.terminal !== commonOf(site, own.controller)) return own
  const { place, ends } = getOrThrow(site.splices, target.splice)
  const coils = [
    ...ends.flatMap((e) => (e.kind === 'port' ? [e.device] : [])),
    ...entries(site.devices).flatMap(([id, d]) => (d.place === place ? [id] : [])),
  ]
  return coils.map((device) => screwOf(site, device)).find((screw) => screw !== null) ?? own
}

/** What is taken in hand: the conductors of a joint or under a screw, the leads of a device, the cores of a cable. */
function conductorsOf(site: Site, { target, core }: Thing): Told['conductors'] {
  if (core) {
    const cable = getOrThrow(site.cables, core.cable)
    const from = cable.tag ?? (cable.name || core.cable)
    return [{ colour: lookUp(cable.cores, core.core)?.colour?.value ?? null, from, way: 'leaves' }]
  }
  switch (target.kind) {
    case 'joint':
      return getOrThrow(site.splices, target.splice).ends.map((e) => seenOf(site, e))
    case 'terminal':
      return doorOf(site, target.controller).find((t) => t.terminal === target.terminal)?.landed ?? []
    case 'coil':
    case 'device': {
      const { tag, leads } = getOrThrow(site.devices, target.device)
      return Object.values(leads).map((colour) => ({ colour, from: tag ?? target.device, way: 'device' }))
    }
    case 'cable': {
      const { tag, name, cores } = getOrThrow(site.cables, target.cable)
      const from = tag ?? (name || target.cable)
      return Object.values(cores).map((c) => ({ colour: c.colour?.value ?? null, from, way: 'leaves' }))
    }
    default:
      return []
  }
}
