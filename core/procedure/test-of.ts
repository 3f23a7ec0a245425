import { testKindOf, type FieldTest } from '../record'
import { terminalTest } from '../expect'
import { getOrThrow, terminalEnd, type Site } from '../site'
import { screwOf, type Screw } from './thing'
import type { StepHere } from './unfold'

/**
 * The test that a step asks for at the thing it is done on; null of a step that asks for none, and where the thing has
 * no such point: a coil that no terminal runs has none at the cabinet.
 */
export function testOf(
  site: Site,
  { step: { does }, thing: { target } }: Pick<StepHere, 'step' | 'thing'>,
): FieldTest | null {
  if (does.kind !== 'measure') return null
  const screw = screwAt(site, target)
  const device = target.kind === 'coil' || target.kind === 'device' ? target.device : null
  if (does.test === 'ohms') {
    if (!screw) return null
    const toCommon = terminalTest(site, screw.controller, screw.terminal)
    return does.to === 'earth'
      ? {
          kind: 'ohms',
          from: terminalEnd(screw.controller, screw.terminal),
          to: { kind: 'earth', place: getOrThrow(site.controllers, screw.controller).place },
        }
      : toCommon
  }
  switch (testKindOf(does.test).on) {
    case 'controller':
      return target.kind === 'controller' ? ({ kind: does.test, controller: target.controller } as FieldTest) : null
    case 'terminal':
      return screw && ({ kind: does.test, at: terminalEnd(screw.controller, screw.terminal) } as FieldTest)
    case 'coil':
      return device && ({ kind: does.test, device } as FieldTest)
    case 'joint':
      return target.kind === 'joint' ? ({ kind: does.test, splice: target.splice } as FieldTest) : null
    default:
      return null
  }
}

function screwAt(site: Site, target: StepHere['thing']['target']): Screw | null {
  if (target.kind === 'terminal') return target
  return target.kind === 'coil' || target.kind === 'device' ? screwOf(site, target.device) : null
}
