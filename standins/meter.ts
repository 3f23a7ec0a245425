import { fieldTest, type FieldTest, type Meter, type ReadingValue } from '../core/record'
import type { Field } from './field'

/** What SCPI gives for "more than can be shown". */
export const OVERLOAD = '+9.90000000E+37'

/** One line in, one line out or none: the simulated meter's side of a connection. */
export interface MeterSession {
  readonly hear: (line: string) => string | null
}

/** What a simulated instrument answers: the tests that its display takes, and a line for each question of its own. */
export interface Asked<T> {
  readonly test: (written: unknown) => T | null
  /** By the question in its short form; null for the test while the clips hang free. */
  readonly questions: Readonly<Record<string, (test: T | null) => string>>
}

/**
 * An instrument that speaks plain SCPI: `*IDN?`, `*RST`, `SYST:ERR?`, `DISP:TEXT "…"` and its own questions. Whoever
 * holds the clips does what the display says, a test in JSON; without one the clips hang free.
 */
export function speaking<T>({ test: testOf, questions }: Asked<T>): MeterSession {
  let test: T | null = null
  const errors: string[] = []
  const wrong = (code: number, text: string): null => {
    errors.push(`${code},"${text}"`)
    return null
  }
  return {
    hear: (line) => {
      const [, head = '', rest = ''] = /^\s*(\S+)\s*(.*?)\s*$/.exec(line) ?? []
      const short = head
        .toUpperCase()
        .replace('MEASURE', 'MEAS')
        .replace('RESISTANCE', 'RES')
        .replace('VOLTAGE', 'VOLT')
        .replace('CURRENT', 'CURR')
        .replace('DISPLAY', 'DISP')
        .replace('SYSTEM', 'SYST')
        .replace('ERROR', 'ERR')
      switch (short) {
        case '*IDN?':
          return 'Field Thread,Simulated meter,0,1'
        case '*RST':
          test = null
          errors.length = 0
          return null
        case 'SYST:ERR?':
          return errors.shift() ?? '0,"No error"'
        case 'DISP:TEXT': {
          test = shownIn(rest, testOf)
          return test ? null : wrong(-151, 'Invalid string data')
        }
        default:
          return questions[short]?.(test) ?? wrong(-113, 'Undefined header')
      }
    },
  }
}

/**
 * A meter on a simulated property: `MEAS:RES?`, `MEAS:VOLT:AC?`, and `READ?`, which gives the figure, or what was seen
 * or heard as a quoted word.
 */
export const meterOn = (field: Field, meter: Meter): MeterSession =>
  speaking<FieldTest>({
    test: (written) => fieldTest.safeParse(written).data ?? null,
    questions: {
      'MEAS:RES?': (test) => {
        const v = test && field.answer(test, meter)
        return v?.kind === 'ohm' ? scpi(v.ohm) : OVERLOAD
      },
      'MEAS:VOLT:AC?': (test) => {
        const v = test && field.answer(test, meter)
        return scpi(v?.kind === 'volt' ? v.volt : 0)
      },
      'READ?': (test) => (test ? spoken(field.answer(test, meter)) : OVERLOAD),
    },
  })

function shownIn<T>(quoted: string, testOf: Asked<T>['test']): T | null {
  try {
    return testOf(JSON.parse(String(JSON.parse(quoted))))
  } catch {
    return null
  }
}

/** A figure as SCPI writes it, with sign and exponent. */
export const scpi = (x: number): string => {
  const [digits, power] = x.toExponential(8).split('e') as [string, string]
  return `+${digits}E${power.startsWith('-') ? '-' : '+'}${power.replace(/[+-]/, '').padStart(2, '0')}`
}

function spoken(value: ReadingValue): string {
  switch (value.kind) {
    case 'ohm':
      return scpi(value.ohm)
    case 'open':
      return OVERLOAD
    case 'volt':
      return scpi(value.volt)
    case 'heard':
      return value.heard ? '"heard"' : '"not heard"'
    case 'lamp':
      return `"${value.lamp}"`
    case 'waters':
      return `"${value.valves.length === 0 ? 'none' : value.valves.join(' ')}"`
    case 'flows':
      return value.flows ? '"flows"' : '"dry"'
    case 'looked':
      return value.sound ? '"sound"' : '"bad"'
    case 'tone':
      return `"${value.lost_m ?? 'through'}"`
  }
}
