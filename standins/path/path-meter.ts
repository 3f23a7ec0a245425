import { pathTest, type PathTest } from '../../core/record'
import { OVERLOAD, scpi, speaking, type MeterSession } from '../meter'
import type { PathField } from './path-field'

/**
 * A meter, a clamp and a pair of eyes on a simulated path: `MEAS:RES?`, `MEAS:VOLT:AC?`, `MEAS:CURR:AC?`, and `READ?`
 * for what is seen, as a quoted word or number.
 */
export function pathMeterOn(field: PathField): MeterSession {
  const figure = (test: PathTest | null): string => {
    const value = test && field.answer(test)
    return typeof value === 'number' ? scpi(value) : OVERLOAD
  }
  return speaking<PathTest>({
    test: (written) => pathTest.safeParse(written).data ?? null,
    questions: {
      'MEAS:RES?': figure,
      'MEAS:VOLT:AC?': figure,
      'MEAS:CURR:AC?': figure,
      'READ?': (test) => {
        const value = test && field.answer(test)
        return typeof value === 'boolean' ? (value ? '"yes"' : '"no"') : value === null ? '"none"' : `"${value}"`
      },
    },
  })
}
