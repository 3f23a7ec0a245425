import { isAsked, pathValue, type PathTest, type PathValue } from '../record'
import { OVERLOAD } from './scpi'

/** The command by which a meter is asked for a test of a path; `READ?` where it is for an eye. */
export function pathQuery(test: PathTest): 'MEAS:RES?' | 'MEAS:VOLT:AC?' | 'MEAS:CURR:AC?' | 'READ?' {
  if (isAsked(test) || test.kind === 'number_read') return 'READ?'
  if (test.kind === 'path_volts') return 'MEAS:VOLT:AC?'
  return test.kind.endsWith('amps') ? 'MEAS:CURR:AC?' : 'MEAS:RES?'
}

/** What a meter's line says of a test of a path; undefined where it is no answer of it. */
export function readPathScpi(test: PathTest, line: string): PathValue | undefined {
  const word = /^"(.*)"$/.exec(line)?.[1]
  if (isAsked(test)) return word === 'yes' ? true : word === 'no' ? false : undefined
  if (word === 'none') return null
  const figure = Number(word ?? line)
  if (line === '' || word === '' || !Number.isFinite(figure)) return undefined
  if (figure >= OVERLOAD) return null
  const read = pathValue.safeParse(Math.max(0, figure))
  return read.success && figure > -1 ? read.data : undefined
}
