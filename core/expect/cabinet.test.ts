import type { CabinetTest, ReadingValue } from '../record'
import { COMMON_METER } from '../record'
import { terminalEnd, type End } from '../site'
import { randomSite } from '../../tests/random-site'
import { judge, judgeCabinet, sceneOf } from './index'

const at = terminalEnd('A', '1') as Extract<End, { kind: 'terminal' }>
const supply: CabinetTest = { kind: 'supply', controller: 'A' as never }
const volts: CabinetTest = { kind: 'volts', at }
const V = (volt: number): ReadingValue => ({ kind: 'volt', volt })
const code = (test: CabinetTest, value: ReadingValue, supply_V: number | null = null) => {
  if (test.kind === 'ohms') throw new Error('not here')
  const { code: c, state } = judgeCabinet(test, value, supply_V)
  return `${c} ${state}`
}

test.each<[volt: number, said: string]>([
  [0.4, 'supply_none fault'],
  [21, 'supply_low doubtful'],
  [24, 'supply_fits fits'],
  [26.5, 'supply_fits fits'],
  [28, 'supply_fits fits'],
  [29, 'supply_high doubtful'],
  [30.5, 'wrong_transformer fault'],
])('supply of %f V: %s', (volt, said) => expect(code(supply, V(volt))).toBe(said))

test.each<[volt: number, supply_V: number | null, said: string]>([
  [26, 26.5, 'volts_fit fits'],
  [24.5, 26.5, 'volts_fit fits'],
  [24.4, 26.5, 'volts_low fault'],
  [0, 26.5, 'volts_none fault'],
  [28.6, 26.5, 'volts_high doubtful'],
  [26, null, 'volts_without_supply none'],
  [31, null, 'wrong_transformer fault'],
])('a terminal of %f V beside a supply of %s: %s', (volt, supply_V, said) =>
  expect(code(volts, V(volt), supply_V)).toBe(said),
)

test('clicks and lamps say what they are, no more', () => {
  expect([
    code({ kind: 'click', at }, { kind: 'heard', heard: true }),
    code({ kind: 'click', at }, { kind: 'heard', heard: false }),
  ]).toEqual(['click_heard fits', 'click_missing fault'])
  expect(
    (['good', 'open', 'short'] as const).map((lamp) => code({ kind: 'tester_coil', at }, { kind: 'lamp', lamp })),
  ).toEqual(['lamp_good fits', 'lamp_open fault', 'lamp_short fault'])
  expect((['lit', 'dark'] as const).map((lamp) => code({ kind: 'tester_power', at }, { kind: 'lamp', lamp }))).toEqual([
    'lamp_lit fits',
    'lamp_dark fault',
  ])
})

test('to earth, by the guide’s limits; a meter that cannot show a megohm proves nothing by showing open', () => {
  const scene = sceneOf(randomSite(1).site)
  const earth = { kind: 'ohms' as const, from: at, to: { kind: 'earth' as const, place: 'A' as never } }
  const said = (ohm: number | null, highest_ohm = COMMON_METER.highest_ohm) =>
    judge(scene, earth, ohm === null ? { kind: 'open' } : { kind: 'ohm', ohm }, { ...COMMON_METER, highest_ohm })
      .verdict.code
  expect([25e6, 20e6, 19e6, 1e6, 999e3, 100e3, 99e3, 10e3, 9e3, 3].map((ohm) => said(ohm))).toEqual([
    'earth_new',
    'earth_new',
    'earth_fine',
    'earth_fine',
    'earth_watch',
    'earth_watch',
    'earth_leak',
    'earth_leak',
    'earth_fault',
    'earth_fault',
  ])
  expect([said(null), said(null, 2e6), said(null, 200e3)]).toEqual(['earth_new', 'earth_fine', 'earth_over'])
})
