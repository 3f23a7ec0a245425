import type { FieldTest } from '../../record'
import type { TerminalId } from '../../site'
import type { HuntContext } from '../context'
import type { Fault } from '../catalogue'
import { threadsOfTest } from '../threads'

/** A conductor with less of the meter's current than this part carries none of it. */
const LEAST_SHARE = 1e-6

/** The threads that a test reads: one for most, two between terminals, none at the common or the supply. */
export function threadsOf(context: HuntContext): (test: FieldTest) => readonly TerminalId[] {
  const { common, meterState, terminals, wire } = context
  const tests = terminals.map((t) => [t, meterState.testOf(wire(t), wire(common))] as const)
  /** Of a joint that holds one thread's conductors the terminal; of one that several share none. */
  const through = new Map<string, readonly TerminalId[]>()
  const throughJoint = (splice: string): readonly TerminalId[] => {
    const known = through.get(splice)
    if (known) return known
    const legs = meterState.powered.parts.flatMap(({ of }, e) => (of.kind === 'leg' && of.splice === splice ? [e] : []))
    const carried = tests.flatMap(([t, test]) =>
      legs.some((e) => meterState.influence.share(test, e) > LEAST_SHARE) ? [t] : [],
    )
    const made = carried.length === 1 ? carried : []
    through.set(splice, made)
    return made
  }
  const listed = (found: readonly (TerminalId | null)[]): TerminalId[] =>
    [...new Set(found)].flatMap((t) => (t === null || t === common ? [] : [t]))
  return (test) => ('splice' in test ? throughJoint(test.splice) : listed(threadsOfTest(context, test)))
}

/** The terminals whose wires a fault leads to each other. */
export const ledBy = (context: HuntContext, { where, besides }: Fault): TerminalId[] =>
  where.kind === 'pair' ? [where.one, where.two] : besides.flatMap((d) => context.terminalOf(d) ?? [])

/** By fault: the terminals in whose threads it lies; null for what lies in the common, or in none. */
export function threadsWith(context: HuntContext, faults: readonly Fault[]): (readonly TerminalId[] | null)[] {
  const owner = ownerIn(context)
  return faults.map((f) => {
    if (f.links) return ledBy(context, f)
    const terminal = owner(f)
    return terminal === null ? null : [terminal]
  })
}
/** The terminal in whose thread alone a fault lies; null for what lies in several, or in none. */
function ownerIn(context: HuntContext): (fault: Fault) => TerminalId | null {
  const { meterState, terminals, wire, common } = context
  const tests = terminals.map((t) => [t, meterState.testOf(wire(t), wire(common))] as const)
  const carriers = new Map<number, TerminalId[]>()
  const carriersOf = (element: number): TerminalId[] => {
    const known = carriers.get(element)
    if (known) return known
    const made = tests.flatMap(([t, test]) => (meterState.influence.share(test, element) > LEAST_SHARE ? [t] : []))
    carriers.set(element, made)
    return made
  }
  return (f) => {
    const { where } = f
    switch (where.kind) {
      case 'pair':
      case 'supply':
      case 'sensor':
      case 'water':
        return null
      case 'terminal':
      case 'thread':
        return where.terminal
      case 'valve':
        return context.terminalOf(where.device)
      default: {
        if (f.besides.length > 0) return null
        // Of a lead that touches the common, the lead's own thread shows it.
        const carried = carriersOf(f.elements[0]!)
        return carried.length === 1 ? carried[0]! : null
      }
    }
  }
}
