import type { Meter } from '../../record'
import type { End, TerminalId } from '../../site'
import { settingsOf } from '../box-settings'
import type { HuntContext } from '../context'
import { powerOf, type Power } from '../power'
import type { Catalogue, Fault, Faults, FaultHypothesis } from '../catalogue'

/** What every prediction starts from: the property, its faults, the meter, and which wire lies under which screw. */
export interface Basis {
  readonly context: HuntContext
  readonly meter: Meter
  readonly power: Power
  readonly settingOf: ReturnType<typeof settingsOf>
  readonly faultOf: (v: FaultHypothesis) => Fault
  /** Leads under other screws: the wire that lies at a terminal, null for a bare screw. */
  readonly wireAt: (terminal: TerminalId, faults: Faults) => TerminalId | null
  /** Whether a terminal gives no volts, whatever hangs on it. */
  readonly isDead: (faults: Faults, terminal: TerminalId) => boolean
  /** The node of the meter's network that a clip is on; null where it is not on record or on a bare screw. */
  readonly pointOf: (end: End, faults: Faults) => number | null
}

export function basisOf(context: HuntContext, catalogue: Catalogue, meter: Meter): Basis {
  const faultOf = (v: FaultHypothesis): Fault => catalogue.faults[v.fault]!
  const wireAt = (terminal: TerminalId, faults: Faults): TerminalId | null => {
    let at: TerminalId | null = terminal
    for (const v of faults) {
      const { where, cause } = faultOf(v)
      if (where.kind !== 'pair' || at === null) continue
      if (cause === 'swapped') at = at === where.one ? where.two : at === where.two ? where.one : at
      else if (at === where.two) at = null
    }
    return at
  }
  return {
    context,
    meter,
    faultOf,
    wireAt,
    power: powerOf(context, catalogue),
    settingOf: settingsOf(context),
    isDead: (faults, terminal) =>
      faults.some((v) => {
        const { where, cause } = faultOf(v)
        return (
          cause === 'supply_dead' ||
          cause === 'sensor_open' ||
          (where.kind === 'terminal' && where.terminal === terminal)
        )
      }),
    pointOf: (end, faults) => {
      if (end.kind !== 'terminal') return context.node(context.meterState.powered.wiring.pointOf(end))
      const at = wireAt(end.terminal, faults)
      return at === null || end.controller !== context.controller ? null : context.wire(at)
    },
  }
}
