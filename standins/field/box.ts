import type { TestOn } from '../../core/record'
import {
  commonOf,
  endKey,
  entries,
  getOrThrow,
  walkFrom,
  type DeviceId,
  type End,
  type SpliceId,
} from '../../core/site'
import type { Done, Network } from './network'
import { EARTH } from './parts'
import { terminalOf, type Real, type Screw } from './real'

/** Tests in ohms for which a joint is undone in a box. */
export type BoxTest = Exclude<TestOn<'coil'>, { kind: 'coil_volts' | 'energise' | 'by_hand' }>

/**
 * What a crew has in hand once a joint is undone: the coil's own end, the core that comes from the cabinet, the
 * joint's middle.
 */
interface Undone {
  readonly splice: SpliceId
  readonly port: number
  readonly core: number
  readonly middle: number
}

/** The joint that holds a coil's lead or its common. */
function jointOf(real: Real, network: Network, device: DeviceId, own: Screw, side: 'lead' | 'common'): Undone | null {
  const { site, wiring } = real
  const common = walkFrom(site, wiring, own.controller, commonOf(site, own.controller)!)
  const end = (['a', 'b'] as const)
    .map((port): End => ({ kind: 'port', device, port }))
    .find((e) => common.distance_m.has(wiring.pointOf(e)) === (side === 'common'))
  const held = end && entries(site.splices).find(([, s]) => s.ends.some((e) => endKey(e) === endKey(end)))
  if (!end || !held) return null
  const [splice, { ends }] = held
  const { distance_m } = side === 'common' ? common : walkFrom(site, wiring, own.controller, own.terminal)
  const away = (point: string) => distance_m.get(point) ?? Infinity
  const core = ends
    .filter((e) => e.kind === 'core')
    .map((e) => wiring.pointOf(e))
    .sort((x, y) => away(x) - away(y))[0]
  return core === undefined
    ? null
    : {
        splice,
        port: network.number(wiring.pointOf(end)),
        core: network.number(core),
        middle: network.number(`joint ${splice}`),
      }
}

/** What a test in a box reads, Ω; Infinity where nothing conducts or nothing can be undone. */
export function atBox(real: Real, network: Network, { kind, device }: BoxTest): number {
  const own = terminalOf(real, device)
  const [lead, home] = own
    ? [jointOf(real, network, device, own, 'lead'), jointOf(real, network, device, own, 'common')]
    : [null, null]
  if (!own || !lead || !home) return Infinity
  const common = network.wireOf(own.controller, commonOf(real.site, own.controller)!)
  const [under, earth] = [network.under(own), network.number(EARTH)]
  const done = (undone: SpliceId, jumper = false): Done => ({
    undone: new Set([undone]),
    apart: network.looseNow(),
    jumper: jumper && under !== null ? [under, common] : null,
  })
  switch (kind) {
    case 'coil_ohms':
      return network.ohms(lead.port, home.port, done(lead.splice))
    case 'loop_lead':
      return network.ohms(lead.core, home.port, done(lead.splice, true))
    case 'loop_common':
      return network.ohms(home.core, lead.middle, done(home.splice, true))
    case 'lead_earth':
      return network.ohms(lead.core, earth, done(lead.splice))
    case 'lead_through':
      return Number.isFinite(network.ohms(lead.core, under, done(lead.splice))) ? real.drawn.soil_ohm : Infinity
    case 'common_earth':
      return network.ohms(home.core, earth, done(home.splice))
  }
}

/** Whether something is wrong with a joint. */
export const isBad = ({ site, faults }: Real, splice: SpliceId): boolean =>
  faults.some((f) => 'end' in f && getOrThrow(site.splices, splice).ends.some((e) => endKey(e) === endKey(f.end)))
