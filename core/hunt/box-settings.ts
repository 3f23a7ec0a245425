import type { Across, Join } from '../circuit'
import type { FieldTest } from '../record'
import type { DeviceId, WirePoint } from '../site'
import { coilJoints } from './coil-joints'
import type { Ground } from './ground'
import type { Alter } from './variants'

/** How a box test is set up: between which points it is read, joints undone, a jumper at the cabinet. */
export interface Setting {
  readonly across: Across
  readonly alters: readonly Alter[]
  readonly joins: readonly Join[]
}

/** The set-up of a test at a coil, worked out once; null where its joints or its terminal are not on record. */
export function settingsOf(ground: Ground): (test: Extract<FieldTest, { device: DeviceId }>) => Setting | null {
  const {
    common,
    meterState: { powered },
  } = ground
  const commonNode = ground.wire(common)
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
  function makeSetting(test: Extract<FieldTest, { device: DeviceId }>): Setting | null {
    const { lead, home } = coilJoints(ground, test.device)
    const terminal = ground.terminalOf(test.device)
    if (!lead || !home || terminal === null || lead.core === null || home.core === null) return null
    const node = (p: WirePoint) => ground.node(p)!
    const jumper: Join = { p: { node: ground.wire(terminal) }, q: { node: commonNode }, ohm: 1e-3 }
    switch (test.kind) {
      case 'coil_ohms':
      case 'energise':
        return { across: { a: node(lead.port), b: node(home.port) }, alters: legsOf(lead.splice), joins: [] }
      case 'loop_lead':
        return { across: { a: node(lead.core), b: node(home.port) }, alters: legsOf(lead.splice), joins: [jumper] }
      case 'loop_common':
        return { across: { a: node(home.core), b: node(lead.middle) }, alters: legsOf(home.splice), joins: [jumper] }
      case 'lead_earth':
        return { across: { a: node(lead.core), b: ground.wire(terminal) }, alters: legsOf(lead.splice), joins: [] }
      case 'lead_through':
        return { across: { a: node(lead.core), b: ground.wire(terminal) }, alters: legsOf(lead.splice), joins: [] }
      case 'common_earth':
        return { across: { a: node(home.core), b: commonNode }, alters: legsOf(home.splice), joins: [] }
      default:
        return null
    }
  }
}
