import type { FieldTest } from '../record'
import type { TerminalId } from '../site'
import type { HuntContext } from './context'

/** The terminals whose threads a test at the cabinet or at a coil is made on; none of the supply, or of a joint. */
export function threadsOfTest({ terminalOf }: HuntContext, test: FieldTest): readonly (TerminalId | null)[] {
  switch (test.kind) {
    case 'supply':
    case 'look':
    case 'remake':
      return []
    case 'ohms':
      return [test.from, test.to].flatMap((e) => (e.kind === 'terminal' ? [e.terminal] : []))
    case 'coil_beside':
      return [terminalOf(test.device), test.live.terminal]
    default:
      return ['device' in test ? terminalOf(test.device) : test.at.terminal]
  }
}
