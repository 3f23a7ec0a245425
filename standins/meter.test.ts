import { quarryLake } from '../demo/quarry-lake'
import { pathQuery, readPathScpi, readScpi, scpiDisplay, scpiQuery } from '../core/formats'
import { pathHuntOf } from '../core/path-hunt'
import { COMMON_METER, type FieldTest } from '../core/record'
import { terminalEnd, type ControllerId, type DeviceId, type SpliceId } from '../core/site'
import { randomPath } from '../tests/random-path'
import { chance, drawPathFault, fieldOf, meterOn, pathFieldOf, pathMeterOn, readFault } from '.'

const A = 'A' as ControllerId
const at = (t: string) => terminalEnd(A, t) as Extract<ReturnType<typeof terminalEnd>, { kind: 'terminal' }>
const session = (fault: string) => {
  const f = readFault(quarryLake(), fault)
  if (!f.ok) throw new Error(fault)
  return meterOn(fieldOf(quarryLake(), [f.value], { random: chance(3), ground_C: 20 }), COMMON_METER)
}

test('the simulated meter speaks plain SCPI: who it is, ohms with sign and exponent, overload for open, volts, words for eyes and ears', () => {
  const { hear } = session('joint-open V3.a')
  expect(hear('*IDN?')).toMatch(/^[^,]+,[^,]+,[^,]+,[^,]+$/)
  expect(hear('MEAS:RES?')).toBe('+9.90000000E+37') // the clips hang free
  expect(hear(scpiDisplay({ kind: 'ohms', from: at('3'), to: at('C') }))).toBeNull()
  expect(hear('MEASure:RESistance?')).toBe('+9.90000000E+37')
  hear(scpiDisplay({ kind: 'ohms', from: at('4'), to: at('C') }))
  expect(hear('meas:res?')).toMatch(/^\+\d\.\d{8}E\+\d\d$/)
  expect(Number(hear('READ?'))).toBeGreaterThan(20)
  hear(scpiDisplay({ kind: 'supply', controller: A }))
  expect(Number(hear('MEAS:VOLT:AC?'))).toBeGreaterThan(24)
  hear(scpiDisplay({ kind: 'click', at: at('3') }))
  expect(hear('READ?')).toBe('"not heard"')
  hear(scpiDisplay({ kind: 'water', at: at('4') }))
  expect(hear('READ?')).toBe('"V4"')
})

test('what it does not know it says when it is asked for errors, and forgets on reset', () => {
  const { hear } = session('coil-open V1')
  expect([
    hear('CONF:CURR'),
    hear('DISP:TEXT "nonsense"'),
    hear('SYST:ERR?'),
    hear('SYST:ERR?'),
    hear('SYST:ERR?'),
  ]).toEqual([null, null, '-113,"Undefined header"', '-151,"Invalid string data"', '0,"No error"'])
  hear('FOO')
  expect([hear('*RST'), hear('SYST:ERR?')]).toEqual([null, '0,"No error"'])
})

test('what it says of every test is read as the reading that the property gave; what is no answer of the test is none', () => {
  const site = quarryLake()
  const splice = Object.keys(site.splices)[0] as SpliceId
  const V3 = 'V3' as DeviceId
  const tests: FieldTest[] = [
    { kind: 'ohms', from: at('3'), to: at('C') },
    { kind: 'supply', controller: A },
    { kind: 'volts', at: at('3') },
    { kind: 'click', at: at('3') },
    { kind: 'tester_coil', at: at('3') },
    { kind: 'tester_power', at: at('3') },
    { kind: 'water', at: at('3') },
    { kind: 'tone', at: at('3') },
    { kind: 'swap_test', at: at('3'), onto: at('4') },
    { kind: 'coil_beside', device: V3, live: at('4') },
    { kind: 'energise', device: V3 },
    { kind: 'by_hand', device: V3 },
    { kind: 'look', splice },
    { kind: 'remake', splice },
    ...(
      ['coil_ohms', 'coil_volts', 'loop_lead', 'loop_common', 'lead_earth', 'lead_through', 'common_earth'] as const
    ).map((kind) => ({ kind, device: V3 })),
  ]
  for (const fault of ['coil-open V3', 'joint-open V3.a', 'stuck-shut V3', 'water A'])
    for (const test of tests) {
      const wrong = readFault(site, fault)
      if (!wrong.ok) throw new Error(fault)
      const real = () => fieldOf(site, [wrong.value], { random: chance(9), ground_C: 20 })
      const { hear } = meterOn(real(), COMMON_METER)
      hear(scpiDisplay(test))
      expect(readScpi(test, hear(scpiQuery(test))!)).toEqual(real().answer(test, COMMON_METER))
    }
  const [ohms, , volts, click, tester, , , tone] = tests as [
    FieldTest,
    FieldTest,
    FieldTest,
    FieldTest,
    FieldTest,
    FieldTest,
    FieldTest,
    FieldTest,
  ]
  for (const [test, line] of [
    [ohms, ''],
    [ohms, 'ERR'],
    [ohms, '-40'],
    [ohms, '"heard"'],
    [volts, '+9.90000000E+37'],
    [click, '"perhaps"'],
    [click, '1'],
    [tester, '"lit"'],
    [tone, '"far"'],
    [tone, '"-3"'],
  ] as const)
    expect([line, readScpi(test, line)]).toEqual([line, null])
  expect(readScpi(ohms, '-2.0E-02')).toEqual({ kind: 'ohm', ohm: 0 })
})

test('a simulated path answers every test over the same lines, and what is read is what the path gave', () => {
  const { site, path } = randomPath(3, { boxes: 5, exits: 2 })
  const made = pathHuntOf(site, path)
  if (!made.ok) throw new Error('path')
  const kinds = new Set<string>()
  for (const seed of [1, 2, 3, 4, 5]) {
    const real = () => pathFieldOf(site, path, drawPathFault(site, path, seed), seed)
    for (const { test } of made.value.candidates) {
      const { hear } = pathMeterOn(real())
      expect(hear(scpiDisplay(test))).toBeNull()
      const line = hear(pathQuery(test))!
      const value = real().answer(test)
      expect(readPathScpi(test, line)).toEqual(typeof value === 'number' ? expect.closeTo(value, 5) : value)
      kinds.add(test.kind)
    }
  }
  expect(kinds.size).toBe(12)
  const { hear } = pathMeterOn(pathFieldOf(site, path, null, 1))
  expect([hear('MEAS:CURRent:AC?'), hear('DISP:TEXT "{}"'), hear('SYST:ERR?')]).toEqual([
    '+9.90000000E+37',
    null,
    '-151,"Invalid string data"',
  ])
  for (const [test, line] of [
    [{ kind: 'line_amps' }, '"yes"'],
    [{ kind: 'line_amps' }, '-4'],
    [{ kind: 'reports', number: null }, '1'],
  ] as const)
    expect([line, readPathScpi(test, line)]).toEqual([line, undefined])
})
