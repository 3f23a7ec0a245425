import type { Across, Join } from '../circuit'
import { testKindOf, type Clip, type TestOn } from '../record'
import type { WirePoint } from '../site'
import { coilJoints } from './coil-joints'
import type { HuntContext } from './context'
import type { Alter } from './catalogue'

/** How a box test is set up: between which points it is read, joints undone, a jumper at the cabinet. */
export interface Setting {
  readonly across: Across
  readonly alters: readonly Alter[]
  readonly joins: readonly Join[]
}

/** The set-up of a test at a coil, worked out once; null where its joints or its terminal are not on record. */
export function settingsOf(context: HuntContext): (test: TestOn<'coil'>) => Setting | null {
  const {
    common,
    meterState: { powered },
  } = context
  const commonNode = context.wire(common)
  const legsOf = (splice: string): Alter[] =>
    powered.parts.flatMap(({ of }, element) =>
      of.kind === 'leg' && of.splice === splice ? [{ element, to: () => null }] : [],
    )
  const settings = new Map<string, Setting | null>()
  return (test) => {
    const key = `${test.kind} ${test.device}`
    if (!settings.has(key)) settings.set(key, makeSetting(test))
    return settings.get(key)!
  }
  function makeSetting(test: TestOn<'coil'>): Setting | null {
    const { lead, home } = coilJoints(context, test.device)
    const terminal = context.terminalOf(test.device)
    if (!lead || !home || terminal === null || lead.core === null || home.core === null) return null
    const { clips, setup } = testKindOf(test.kind)
    if (!clips || setup.undone === null) return null
    const node = (p: WirePoint) => context.node(p)!
    const at: Readonly<Record<Clip, number>> = {
      'lead port': node(lead.port),
      'lead core': node(lead.core),
      'lead middle': node(lead.middle),
      'common port': node(home.port),
      'common core': node(home.core),
      screw: context.wire(terminal),
      C: commonNode,
    }
    const jumper: Join = { p: { node: at.screw }, q: { node: at.C }, ohm: 1e-3 }
    return {
      across: { a: at[clips[0]], b: at[clips[1]] },
      alters: legsOf((setup.undone === 'common' ? home : lead).splice),
      joins: setup.set === 'jumper' ? [jumper] : [],
    }
  }
}
