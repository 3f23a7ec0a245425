import { isToEarth, type FieldTest } from '../../record'
import type { TerminalId } from '../../site'
import type { HuntContext } from '../context'
import type { Faults } from '../catalogue'
import type { Basis } from './basis'
import type { Prediction } from './prediction'

const EITHER = 0.5

/** The terminals whose threads a test looks through: what is not listed may show in it. None of one to earth. */
export function threadsThrough({ terminalOf }: HuntContext, test: FieldTest): readonly (TerminalId | null)[] {
  switch (test.kind) {
    case 'ohms':
      return isToEarth(test) ? [] : [test.from, test.to].flatMap((e) => (e.kind === 'terminal' ? [e.terminal] : []))
    case 'coil_ohms':
    case 'coil_volts':
    case 'loop_lead':
    case 'loop_common':
    case 'lead_through':
      return [terminalOf(test.device)]
    case 'coil_beside':
      return [terminalOf(test.device), test.live.terminal]
    case 'click':
    case 'swap_test':
    case 'tester_coil':
    case 'tester_power':
    case 'volts':
    case 'water':
      return [test.at.terminal]
    default:
      return []
  }
}

/** What a test shows that looks through a thread on which something is wrong that is not listed; `rest`: without that. */
export function unlistedOf({ context, faultOf, wireAt }: Basis) {
  return (test: FieldTest, faults: Faults, rest: Prediction): Prediction => {
    const wires = threadsThrough(context, test).map((t) => t && wireAt(t, faults))
    const strange = faults.flatMap((v) => {
      const { where } = faultOf(v)
      return where.kind === 'thread' && wires.includes(where.terminal) ? [where.terminal] : []
    })
    return strange.length === 0 ? rest : anything(rest, new Set(strange.flatMap((t) => context.valvesOf(t))))
  }
}

function anything(rest: Prediction, valves: ReadonlySet<string>): Prediction {
  switch (rest.kind) {
    case 'ohms':
    case 'open':
    case 'volts':
      return { kind: 'anything' }
    case 'yes':
      return { kind: 'yes', p: EITHER }
    case 'lamps':
      return { kind: 'lamps', good: 1 / 3, open: 1 / 3, short: 1 / 3 }
    case 'waters':
      return { ...rest, valves: rest.valves.map(([d, p]) => [d, valves.has(d) ? EITHER : p]) }
    case 'either':
      return anything(rest.well, valves)
    default:
      return rest
  }
}
