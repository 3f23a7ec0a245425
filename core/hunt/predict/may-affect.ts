import type { FieldTest } from '../../record'
import type { DeviceId, TerminalId } from '../../site'
import type { Cause } from '../odds'
import type { Fault } from '../catalogue'
import type { Basis } from './basis'
import { threadsThrough } from './unlisted'

type Relevance = {
  readonly [K in FieldTest['kind']]: (test: Extract<FieldTest, { kind: K }>, fault: Fault) => boolean
}
type UnderPower = 'volts' | 'tester_power' | 'click' | 'water' | 'swap_test' | 'coil_volts' | 'coil_beside'

/** A meter's current below this part of its whole, or volts below this of a transformer's, are none. */
const LEAST_SHARE = 1e-9
const LEAST_V = 1e-4
/** What takes volts or water from the whole controller. */
const EVERYWHERE: ReadonlySet<Cause> = new Set<Cause>(['supply_dead', 'sensor_open', 'water_off'])

/**
 * Whether a fault can show in a test at all. Cheap and on the safe side: one that might show is looked at; where none
 * can, the test reads as it does without faults.
 */
export function relevanceOf(basis: Basis): (test: FieldTest, fault: Fault) => boolean {
  const { context, pointOf, settingOf } = basis
  const { meterState } = context
  /** Leads under each other's screws show where one of them is; all else as `rest` says. */
  const orPair = (terminal: TerminalId | null, { where }: Fault, rest: () => boolean): boolean =>
    where.kind === 'pair' ? terminal === where.one || terminal === where.two : rest()
  /** Whether what a fault changes carries any of the meter's current; every cell of its grid changes the same. */
  const carriesIn = (test: number, { elements, variants }: Fault): boolean => {
    const { joins, alters } = variants[0]!.mods
    const changed = joins.length > 0 ? elements : alters.map((a) => a.element)
    return changed.some((e) => meterState.influence.share(test, e) > LEAST_SHARE)
  }
  const between = (a: number, b: number, f: Fault) => carriesIn(meterState.testOf(a, b), f)
  const isJoint = ({ splice }: { splice: string }, { where }: Fault) =>
    where.kind === 'joint' && where.splice === splice
  const isCoil = ({ device }: { device: DeviceId }, { where }: Fault) =>
    where.kind === 'coil' && where.device === device
  const isLeak = ({ device }: { device: DeviceId }, f: Fault) =>
    orPair(context.terminalOf(device), f, () => f.cause === 'leak')
  const loop = (test: Extract<FieldTest, { kind: 'loop_lead' | 'loop_common' }>, f: Fault): boolean => {
    const terminal = context.terminalOf(test.device)
    return orPair(terminal, f, () => {
      const setting = settingOf(test)
      if (!setting || terminal === null) return false
      // Along the lead from the cabinet, and along the common home.
      const { a, b } = setting.across
      return [context.wire(terminal), context.wire(context.common)].some((from) =>
        [a, b].some((to) => between(from, to, f)),
      )
    })
  }
  const power = poweredRelevance(basis)
  const at = ({ kind, at: { terminal } }: { kind: UnderPower; at: { terminal: TerminalId } }, f: Fault) =>
    orPair(terminal, f, () => power(kind, terminal, f))
  const relevance: Relevance = {
    look: isJoint,
    remake: isJoint,
    energise: isCoil,
    coil_ohms: isCoil,
    lead_earth: isLeak,
    common_earth: isLeak,
    loop_lead: loop,
    loop_common: loop,
    supply: (_, f) => f.cause === 'supply_dead',
    by_hand: ({ device }, { cause, where }) =>
      cause === 'water_off' || (where.kind === 'valve' && where.device === device),
    tone: (test, f) =>
      orPair(test.at.terminal, f, () => f.cause === 'open' && (f.where.kind === 'run' || f.where.kind === 'joint')),
    ohms: ({ from, to }, f) => {
      const { where } = f
      if (where.kind === 'pair')
        return [from, to].some((e) => e.kind === 'terminal' && orPair(e.terminal, f, () => false))
      if (to.kind === 'earth') return f.cause === 'leak'
      const [a, b] = [pointOf(from, []), pointOf(to, [])]
      return a !== null && b !== null && between(a, b, f)
    },
    lead_through: (test, f) =>
      orPair(context.terminalOf(test.device), f, () => {
        const setting = settingOf(test)
        return setting !== null && between(setting.across.a, setting.across.b, f)
      }),
    tester_coil: ({ at: { terminal } }, f) =>
      orPair(terminal, f, () => between(context.wire(terminal), context.wire(context.common), f)),
    coil_volts: ({ kind, device }, f) => {
      const terminal = context.terminalOf(device)
      return orPair(terminal, f, () => terminal !== null && power(kind, terminal, f))
    },
    coil_beside: ({ kind, live: { terminal } }, f) => orPair(terminal, f, () => power(kind, terminal, f)),
    volts: at,
    tester_power: at,
    click: at,
    water: at,
    swap_test: (test, f) => at(test, f) || (f.where.kind === 'terminal' && f.where.terminal === test.onto.terminal),
  }
  return (test, fault) =>
    fault.where.kind === 'thread'
      ? threadsThrough(context, test).includes(fault.where.terminal)
      : relevance[test.kind](test as never, fault)
}

/** The same for tests with a terminal on, and its master with it. */
function poweredRelevance({ context }: Basis) {
  return (kind: UnderPower, terminal: TerminalId, { cause, where, elements }: Fault): boolean => {
    if (EVERYWHERE.has(cause)) return cause !== 'water_off' || kind === 'water'
    const master = context.masterOf(terminal)
    switch (where.kind) {
      case 'terminal':
        return where.terminal === terminal || (kind === 'water' && where.terminal === master?.terminal)
      case 'valve':
        return (
          kind === 'water' &&
          (cause === 'stuck_open' ||
            context.valvesOf(terminal).includes(where.device) ||
            master?.valve === where.device)
        )
      default: {
        if (cause === 'leak') return false
        const { influence } = context.on(terminal)
        // Conductors that touch matter where one of them carries current.
        return elements.some((e) => influence.driven_V(e) > LEAST_V)
      }
    }
  }
}
