import type { DeviceId, TerminalId } from '../../site'
import { pullIn_V } from '../context'
import { normalBelow } from '../normal'
import type { Cause } from '../odds'
import { started_V } from '../power'
import type { Faults } from '../catalogue'
import type { Basis } from './basis'
import { MAINS_ratio, type Prediction } from './prediction'

/** Predictions of what valves do when a terminal is on. */
export interface Valves {
  readonly waterOff: (faults: Faults) => boolean
  readonly stuck: (device: DeviceId, cause: 'stuck_shut' | 'stuck_open', faults: Faults) => boolean
  readonly waters: (terminal: TerminalId, faults: Faults) => Prediction
  /** How likely a valve of a terminal is heard when this wire is live. */
  readonly clickOf: (terminal: TerminalId, wired: TerminalId, faults: Faults) => number
}

/** Coils of one kind pull in within so much of the volts that their sheet gives. */
const PULL_SPREAD_V = 0.35
/** Causes by which a coil does not move at all. */
const SPOILT: ReadonlySet<Cause> = new Set<Cause>(['coil_open', 'coil_short', 'coil_dc'])
/** Causes by which nothing of the controller has volts. */
const ALL_DEAD: ReadonlySet<Cause> = new Set<Cause>(['supply_dead', 'sensor_open'])

export function valvesOf({ context, faultOf, isDead, wireAt, power: { liveAt } }: Basis): Valves {
  /** How likely a coil pulls in at these volts, its winding being what the faults leave of it. */
  const pulls = (device: DeviceId, volt_V: number, faults: Faults): number => {
    const spoilt = faults.some((v) => {
      const { where, cause } = faultOf(v)
      return where.kind === 'coil' && where.device === device && SPOILT.has(cause)
    })
    if (spoilt || volt_V < 1) return 0
    const spread = Math.hypot(PULL_SPREAD_V, MAINS_ratio * volt_V)
    return normalBelow((volt_V - pullIn_V(context.site, device)) / spread)
  }
  const zoneValves = new Set(Object.values(context.site.stations).flatMap((s) => s.valves))
  const waterOff = (faults: Faults) => faults.some((v) => faultOf(v).cause === 'water_off')
  const stuck: Valves['stuck'] = (device, cause, faults) =>
    faults.some((v) => {
      const f = faultOf(v)
      return f.cause === cause && f.where.kind === 'valve' && f.where.device === device
    })
  /** How likely a valve opens; `fed` is how likely its coil pulls in. */
  const opens = (device: DeviceId, faults: Faults, fed: () => number): number =>
    stuck(device, 'stuck_shut', faults) ? 0 : stuck(device, 'stuck_open', faults) ? 1 : fed()

  function waters(terminal: TerminalId, faults: Faults): Prediction {
    const wired = wireAt(terminal, faults)
    // A master valve that opens waters nothing by itself.
    const beside = faults
      .flatMap((v) => {
        const f = faultOf(v)
        return f.where.kind === 'valve' ? [f.where.device] : [...f.besides]
      })
      .filter((d) => zoneValves.has(d))
    const considered = [...new Set([...context.valvesOf(terminal), ...beside])]
    if (waterOff(faults)) return { kind: 'waters', master: 0, valves: considered.map((d) => [d, 0.5]) }
    const at = isDead(faults, terminal) || wired === null ? null : liveAt(wired, faults)
    const master = context.masterOf(terminal)
    // The master's terminal is energised though the station's own is dead.
    const masterOpens = (): number => {
      if (master === null || master.valve === null) return 1
      if (faults.some((v) => ALL_DEAD.has(faultOf(v).cause)) || isDead(faults, master.terminal)) return 0
      const { valve, terminal: own } = master
      return opens(valve, faults, () => pulls(valve, started_V(at ?? liveAt(own, faults), valve), faults))
    }
    return {
      kind: 'waters',
      master: masterOpens(),
      valves: considered.map((d) => [
        d,
        opens(d, faults, () => (at === null ? 0 : pulls(d, started_V(at, d), faults))),
      ]),
    }
  }
  const clickOf: Valves['clickOf'] = (terminal, wired, faults) => {
    const at = liveAt(wired, faults)
    return 1 - context.valvesOf(terminal).reduce((none, d) => none * (1 - pulls(d, started_V(at, d), faults)), 1)
  }
  return { waterOff, stuck, waters, clickOf }
}
