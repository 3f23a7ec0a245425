import type { FieldTest } from '../../record'
import type { TerminalId } from '../../site'
import type { HuntContext } from '../context'
import type { Fault } from '../variants'

/** A conductor with less of the meter's current than this part carries none of it. */
const LEAST_SHARE = 1e-6

/** Terminals of master valves: what is wrong there shows in every station's water. */
const mastersOf = (context: HuntContext): ReadonlySet<TerminalId> =>
  new Set(context.terminals.flatMap((t) => context.masterOf(t)?.terminal ?? []))

/**
 * Where a fault shows: in the readings of one terminal's thread only, or in more than one. What shows in one thread
 * only is summed there, beside everything else (`null` for what is shared).
 */
export function ownersOf(context: HuntContext, faults: readonly Fault[]): (TerminalId | null)[] {
  const { meterState, terminals, wire, common } = context
  const masters = mastersOf(context)
  const tests = terminals.map((t) => [t, meterState.testOf(wire(t), wire(common))] as const)
  const carriers = new Map<number, TerminalId[]>()
  const carriersOf = (element: number): TerminalId[] => {
    const known = carriers.get(element)
    if (known) return known
    const made = tests.flatMap(([t, test]) => (meterState.influence.share(test, element) > LEAST_SHARE ? [t] : []))
    carriers.set(element, made)
    return made
  }
  const thread = (t: TerminalId | null): TerminalId | null => (t === null || masters.has(t) ? null : t)
  return faults.map((f): TerminalId | null => {
    const { where, cause } = f
    switch (where.kind) {
      case 'pair':
      case 'supply':
      case 'sensor':
      case 'water':
        return null
      case 'terminal':
        return thread(where.terminal)
      case 'valve':
        return cause === 'stuck_open' ? null : thread(context.terminalOf(where.device))
      default: {
        if (f.besides.length > 0) return null
        // Of a lead that touches the common, the lead's own thread shows it.
        const carried = carriersOf(f.elements[0]!)
        return carried.length === 1 ? thread(carried[0]!) : null
      }
    }
  })
}

/** The threads whose own faults a test may show. */
export function threadsOf(context: HuntContext, owners: (splice: string) => readonly (TerminalId | null)[]) {
  const { common } = context
  const masters = mastersOf(context)
  const listed = (found: readonly (TerminalId | null)[]): TerminalId[] =>
    [...new Set(found)].flatMap((t) => (t === null || t === common || masters.has(t) ? [] : [t]))
  return (test: FieldTest): TerminalId[] => {
    switch (test.kind) {
      case 'supply':
        return []
      case 'ohms':
        return listed([test.from, test.to].map((e) => (e.kind === 'terminal' ? e.terminal : null)))
      case 'look':
      case 'remake':
        return listed(owners(test.splice))
      default:
        return listed(['device' in test ? context.terminalOf(test.device) : test.at.terminal])
    }
  }
}
