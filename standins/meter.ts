import { fieldTest, type FieldTest, type Meter, type ReadingValue } from '../core/record'
import type { Field } from './field'

/** What SCPI gives for "more than can be shown". */
const OVERLOAD = '+9.90000000E+37'

/** One line in, one line out or none: the simulated meter's side of a connection. */
export interface MeterSession {
  readonly hear: (line: string) => string | null
}

/**
 * A meter on a simulated property that speaks plain SCPI: `*IDN?`, `*RST`, `SYST:ERR?`, `DISP:TEXT "…"`, `MEAS:RES?`,
 * `MEAS:VOLT:AC?`, `READ?`. Whoever holds the clips does what the display says, a test in JSON; without one the clips
 * hang free. `READ?` gives the figure, or what was seen or heard as a quoted word.
 */
export function meterOn(field: Field, meter: Meter): MeterSession {
  let test: FieldTest | null = null
  const errors: string[] = []
  const wrong = (code: number, text: string): null => {
    errors.push(`${code},"${text}"`)
    return null
  }
  return {
    hear: (line) => {
      const [, head = '', rest = ''] = /^\s*(\S+)\s*(.*?)\s*$/.exec(line) ?? []
      switch (
        head
          .toUpperCase()
          .replace('MEASURE', 'MEAS')
          .replace('RESISTANCE', 'RES')
          .replace('VOLTAGE', 'VOLT')
          .replace('DISPLAY', 'DISP')
          .replace('SYSTEM', 'SYST')
          .replace('ERROR', 'ERR')
      ) {
        case '*IDN?':
          return 'Field Thread,Simulated meter,0,1'
        case '*RST':
          test = null
          errors.length = 0
          return null
        case 'SYST:ERR?':
          return errors.shift() ?? '0,"No error"'
        case 'DISP:TEXT': {
          test = testIn(rest)
          return test ? null : wrong(-151, 'Invalid string data')
        }
        case 'MEAS:RES?': {
          const v = test && field.answer(test, meter)
          return v?.kind === 'ohm' ? scpi(v.ohm) : OVERLOAD
        }
        case 'MEAS:VOLT:AC?': {
          const v = test && field.answer(test, meter)
          return scpi(v?.kind === 'volt' ? v.volt : 0)
        }
        case 'READ?':
          return test ? spoken(field.answer(test, meter)) : OVERLOAD
        default:
          return wrong(-113, 'Undefined header')
      }
    },
  }
}

function testIn(quoted: string): FieldTest | null {
  try {
    const parsed = fieldTest.safeParse(JSON.parse(String(JSON.parse(quoted))))
    return parsed.success ? parsed.data : null
  } catch {
    return null
  }
}

/** A figure as SCPI writes it, with sign and exponent. */
const scpi = (x: number): string => {
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
