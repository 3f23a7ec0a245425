import { answers, readingValue, type FieldTest, type ReadingValue } from '../record'

/** What SCPI gives for "more than can be shown". */
const OVERLOAD = 9.9e37
const OHMS: ReadonlySet<FieldTest['kind']> = new Set([
  'ohms',
  'coil_ohms',
  'loop_lead',
  'loop_common',
  'lead_earth',
  'lead_through',
  'common_earth',
])
const VOLTS: ReadonlySet<FieldTest['kind']> = new Set(['supply', 'volts', 'coil_volts'])

/** The command by which a meter is asked for a test's answer; `READ?` where it is for an eye or an ear, which only a simulated property has. */
export const scpiQuery = ({ kind }: FieldTest): 'MEAS:RES?' | 'MEAS:VOLT:AC?' | 'READ?' =>
  OHMS.has(kind) ? 'MEAS:RES?' : VOLTS.has(kind) ? 'MEAS:VOLT:AC?' : 'READ?'
/** The line that has the display say where the clips go. */
export const scpiDisplay = (test: FieldTest): string => `DISP:TEXT ${JSON.stringify(JSON.stringify(test))}`

/** What a meter's line says of a test: a figure in ohms or volts, or a quoted word; null where it is no answer of this test. */
export function readScpi(test: FieldTest, line: string): ReadingValue | null {
  const word = /^"(.*)"$/.exec(line)?.[1]
  const read = readingValue.safeParse(word === undefined ? ofFigure(test, line) : ofWord(test, word))
  return read.success && answers(test, read.data) ? read.data : null
}

function ofFigure({ kind }: FieldTest, line: string): unknown {
  const figure = line === '' ? NaN : Number(line)
  // A meter whose leads were taken off may show a little less than nothing.
  if (OHMS.has(kind))
    return figure >= OVERLOAD ? { kind: 'open' } : { kind: 'ohm', ohm: figure > -1 ? Math.max(0, figure) : figure }
  return VOLTS.has(kind) ? { kind: 'volt', volt: figure } : null
}

/** Words for yes and no. */
const HEARD = { heard: true, 'not heard': false }
const FLOWS = { flows: true, dry: false }
const SOUND = { sound: true, bad: false }
function ofWord({ kind }: FieldTest, word: string): unknown {
  switch (kind) {
    case 'click':
    case 'swap_test':
    case 'energise':
      return { kind: 'heard', heard: HEARD[word as keyof typeof HEARD] }
    case 'by_hand':
      return { kind: 'flows', flows: FLOWS[word as keyof typeof FLOWS] }
    case 'look':
    case 'remake':
      return { kind: 'looked', sound: SOUND[word as keyof typeof SOUND] }
    case 'tester_coil':
    case 'tester_power':
      return { kind: 'lamp', lamp: word }
    case 'water':
      return { kind: 'waters', valves: word === 'none' ? [] : word.split(' ') }
    case 'tone':
      return { kind: 'tone', lost_m: word === 'through' ? null : word === '' ? NaN : Number(word) }
    default:
      return null
  }
}
