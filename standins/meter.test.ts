import { quarryLake } from '../demo/quarry-lake'
import { COMMON_METER, type FieldTest } from '../core/record'
import { terminalEnd } from '../core/site'
import { chance, fieldOf, meterOn, readFault } from '.'

const at = (t: string) => terminalEnd('A', t)
const text = (test: unknown) => `DISP:TEXT ${JSON.stringify(JSON.stringify(test))}`
const session = (fault: string) => { const f = readFault(quarryLake(), fault); if (!f.ok) throw new Error(fault); return meterOn(fieldOf(quarryLake(), [f.value], { random: chance(3), ground_C: 20 }), COMMON_METER) }

test('the simulated meter speaks plain SCPI: who it is, ohms with sign and exponent, overload for open, volts, words for eyes and ears', () => {
  const { hear } = session('joint-open V3.a')
  expect(hear('*IDN?')).toMatch(/^[^,]+,[^,]+,[^,]+,[^,]+$/)
  expect(hear('MEAS:RES?')).toBe('+9.90000000E+37') // the clips hang free
  expect(hear(text({ kind: 'ohms', from: at('3'), to: at('C') }))).toBeNull()
  expect(hear('MEASure:RESistance?')).toBe('+9.90000000E+37')
  hear(text({ kind: 'ohms', from: at('4'), to: at('C') }))
  expect(hear('meas:res?')).toMatch(/^\+\d\.\d{8}E\+\d\d$/)
  expect(Number(hear('READ?'))).toBeGreaterThan(20)
  hear(text({ kind: 'supply', controller: 'A' }))
  expect(Number(hear('MEAS:VOLT:AC?'))).toBeGreaterThan(24)
  hear(text({ kind: 'click', at: at('3') }))
  expect(hear('READ?')).toBe('"not heard"')
  hear(text({ kind: 'water', at: at('4') } as FieldTest))
  expect(hear('READ?')).toBe('"V4"')
})

test('what it does not know it says when it is asked for errors, and forgets on reset', () => {
  const { hear } = session('coil-open V1')
  expect([hear('CONF:CURR'), hear('DISP:TEXT "nonsense"'), hear('SYST:ERR?'), hear('SYST:ERR?'), hear('SYST:ERR?')]).toEqual([null, null, '-113,"Undefined header"', '-151,"Invalid string data"', '0,"No error"'])
  hear('FOO')
  expect([hear('*RST'), hear('SYST:ERR?')]).toEqual([null, '0,"No error"'])
})
