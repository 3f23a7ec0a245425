import { pointsOf } from '../cabinet'
import { climateOf, minimumOf, rated_A, sourceResistance_ohm, unloaded_V, UNKNOWN_TRANSFORMER_VA } from '../circuit'
import { apart_m, whereIs } from '../map'
import { copperFactor } from '../quantity'
import { stockOf } from '../sizing'
import {
  getOrThrow,
  lookUp,
  netsOf,
  outputsOf,
  setField,
  terminalEnd,
  wiringOf,
  type Command,
  type ControllerId,
  type DeviceId,
  type PathAt,
  type PointOfConnection,
  type PointOfConnectionId,
  type Site,
} from '../site'
import { layoutOf } from './layout'
import { TRENCH } from './second-way'

export const AID_ROLES = ['masterValve', 'pumpRelay', 'flowSensor'] as const
export type AidRole = (typeof AID_ROLES)[number]
export type Reached = PointOfConnection['reached']['masterValve']

/** Why a master valve, a pump’s relay or a flow sensor is advised to be wired as it is. */
export type AidReason =
  | { readonly kind: 'shut_off' | 'pulses' | 'switch_only' | 'no_terminal' }
  | { readonly kind: 'out_of_reach'; readonly length_m: number; readonly reach_m: number }

/**
 * A master valve, a pump’s relay or a flow sensor of a controller with a path: how the set-up declares it, how it is
 * wired, and how it is advised to be.
 */
export interface Aid {
  readonly point: PointOfConnectionId
  readonly role: AidRole
  readonly device: DeviceId
  readonly declared: Reached
  /** Null where neither a screw of the controller nor a decoder of its path leads to it. */
  readonly wired: Reached | null
  /** The decoder that it is behind, and the number by which the set-up names it. */
  readonly behind: { readonly decoder: DeviceId; readonly address: number | null } | null
  readonly advised: Reached
  readonly reasons: readonly AidReason[]
  /** Between the power module and the decoder module, as it is wired now: by the system’s sheet. */
  readonly jumper: 'fit' | 'none' | 'ask'
}

/** Every device of the points of connection of a path’s controller, for its set-up table. */
export function aidsOf(site: Site, path: PathAt): Aid[] {
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  const netAt = (device: DeviceId, port: string) => nets.of(wiring.pointOf({ kind: 'port', device, port }))
  const screws = new Set(
    Object.entries(getOrThrow(site.controllers, path.controller).terminals)
      .filter(([, t]) => t.role !== 'path' && t.role !== 'common')
      .map(([id]) => nets.of(wiring.pointOf(terminalEnd(path.controller, id)))),
  )
  const onPath = new Set(path.decoders.map((d) => d.device))
  const outputs = outputsOf(site).filter((o) => onPath.has(o.decoder))
  return pointsOf(site, path.controller).flatMap(([point, p]) =>
    AID_ROLES.flatMap((role): Aid[] => {
      const device = p[role]
      if (device === null) return []
      const ends = [netAt(device, 'a'), netAt(device, 'b')]
      const output = outputs.find((o) => ends.includes(netAt(o.decoder, o.port)))
      const wired = output ? 'path' : ends.some((net) => screws.has(net)) ? 'direct' : null
      const { advised, reasons } = adviceFor(site, path, p, role, device)
      return [
        {
          point,
          role,
          device,
          declared: p.reached[role],
          wired,
          behind: output ? { decoder: output.decoder, address: output.address } : null,
          advised,
          reasons,
          jumper: jumperFor(path, wired ?? advised),
        },
      ]
    }),
  )
}

/** The change that makes the set-up say how a device is wired. */
export const declareCommands = (site: Site, { point, role }: Aid, reached: Reached): Command[] => [
  setField('pointsOfConnection', point, 'reached', {
    ...getOrThrow(site.pointsOfConnection, point).reached,
    [role]: reached,
  }),
]

function jumperFor({ system }: PathAt, reached: Reached): Aid['jumper'] {
  if (reached === 'direct' || system?.jumper === 'none') return 'none'
  return system?.jumper === 'on_path' ? 'fit' : 'ask'
}

/** Direct wires are preferred, unless the controller has no screw for it or no wire of the stores reaches so far. */
function adviceFor(
  site: Site,
  path: PathAt,
  point: PointOfConnection,
  role: AidRole,
  device: DeviceId,
): Pick<Aid, 'advised' | 'reasons'> {
  const { terminals } = getOrThrow(site.controllers, path.controller)
  const hasScrew =
    role === 'flowSensor'
      ? Object.values(terminals).some((t) => t.role === 'sensor')
      : point.terminal !== null && lookUp(terminals, point.terminal.terminal)?.role === 'master'
  const switchOnly: AidReason[] = role === 'pumpRelay' ? [{ kind: 'switch_only' }] : []
  if (!hasScrew) return { advised: 'path', reasons: [{ kind: 'no_terminal' }, ...switchOnly] }
  const reach_m = role === 'flowSensor' ? Infinity : directReach_m(site, path.controller, device)
  const length_m = directLength_m(site, path, device)
  if (length_m !== null && length_m > reach_m)
    return { advised: 'path', reasons: [{ kind: 'out_of_reach', length_m, reach_m }, ...switchOnly] }
  return { advised: 'direct', reasons: [{ kind: role === 'flowSensor' ? 'pulses' : 'shut_off' }] }
}

/** As far as the thickest wire of the stores carries a coil from the controller’s own transformer, under the worst. */
function directReach_m(site: Site, controller: ControllerId, device: DeviceId): number {
  const { coilKind } = getOrThrow(site.devices, device)
  const kind = coilKind === null ? null : (lookUp(site.coilKinds, coilKind) ?? null)
  const { mainsLow_ratio, hottest_C } = site.settings.sizing
  const open_V = unloaded_V(site, controller)
  const rating_VA = getOrThrow(site.controllers, controller).transformer?.rating_VA ?? UNKNOWN_TRANSFORMER_VA
  const amps = rated_A(kind, 'inrush')
  const spare_V =
    open_V * (1 - mainsLow_ratio) - minimumOf(kind, 'inrush') - sourceResistance_ohm(open_V, rating_VA) * amps
  const { ohmPerM } = stockOf(site).at(-1)!
  return Math.max(0, spare_V / (2 * ohmPerM * copperFactor(climateOf(site, hottest_C).ground_C) * amps))
}

/** By the map and a little more, else as the path lies; null where neither tells. */
function directLength_m(site: Site, path: PathAt, device: DeviceId): number | null {
  const { place } = getOrThrow(site.devices, device)
  const [home, there] = [getOrThrow(site.controllers, path.controller).place, place].map((p) =>
    whereIs(getOrThrow(site.places, p)),
  )
  if (home && there) return TRENCH * apart_m(home, there)
  const { spots, distance_m } = layoutOf(site, path)
  const spot = spots.findIndex((s) => s.place === place)
  return spot < 0 ? null : distance_m[spot]!
}
