import { isToEarth, type FieldTest } from '../../record'
import type { TerminalId } from '../../site'
import type { HuntContext } from '../context'
import type { Faults } from '../catalogue'
import { threadsOfTest } from '../threads'
import type { Basis } from './basis'
import type { Prediction } from './prediction'

const EITHER = 0.5

/** Tests that do not tell whether current passes a thread. */
const BESIDE_IT: ReadonlySet<FieldTest['kind']> = new Set<FieldTest['kind']>(['tone', 'energise', 'by_hand'])

/** The terminals whose threads a test looks through: what is not listed may show in it. None of one to earth. */
export const threadsThrough = (context: HuntContext, test: FieldTest): readonly (TerminalId | null)[] =>
  isToEarth(test) || BESIDE_IT.has(test.kind) ? [] : threadsOfTest(context, test)

/**
 * What a test shows that looks through a thread on which something is wrong that is not listed; `rest`: without that.
 */
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
