import {
  answerOf,
  answers,
  readingValue,
  testKindOf,
  type FieldTest,
  type PathTest,
  type ReadingValue,
} from '../record'

/** What SCPI gives for "more than can be shown". */
export const OVERLOAD = 9.9e37
/**
 * The command by which a meter is asked for a test's answer; `READ?` where it is for an eye or an ear, which only a
 * simulated property has.
 */
export function scpiQuery({ kind }: FieldTest): 'MEAS:RES?' | 'MEAS:VOLT:AC?' | 'READ?' {
  const { unit } = answerOf(kind)
  return unit === 'Ω' ? 'MEAS:RES?' : unit === 'V' ? 'MEAS:VOLT:AC?' : 'READ?'
}
/** The line that has the display say where the clips go, or what of a path is read where. */
export const scpiDisplay = (test: FieldTest | PathTest): string => `DISP:TEXT ${JSON.stringify(JSON.stringify(test))}`

/**
 * What a meter's line says of a test: a figure in ohms or volts, or a quoted word; null where it is no answer of this
 * test.
 */
export function readScpi(test: FieldTest, line: string): ReadingValue | null {
  const word = /^"(.*)"$/.exec(line)?.[1]
  const read = readingValue.safeParse(word === undefined ? ofFigure(test, line) : ofWord(test, word))
  return read.success && answers(test, read.data) ? read.data : null
}

function ofFigure({ kind }: FieldTest, line: string): unknown {
  const figure = line === '' ? NaN : Number(line)
  const { unit } = answerOf(kind)
  // A meter whose leads were taken off may show a little less than nothing.
  if (unit === 'Ω')
    return figure >= OVERLOAD ? { kind: 'open' } : { kind: 'ohm', ohm: figure > -1 ? Math.max(0, figure) : figure }
  return unit === 'V' ? { kind: 'volt', volt: figure } : null
}

function ofWord({ kind }: FieldTest, word: string): unknown {
  switch (testKindOf(kind).answer) {
    case 'waters':
      return { kind: 'waters', valves: word === 'none' ? [] : word.split(' ') }
    case 'tone':
      return { kind: 'tone', lost_m: word === 'through' ? null : word === '' ? NaN : Number(word) }
    default:
      return answerOf(kind).options.find((o) => o.written === word)?.value ?? null
  }
}
