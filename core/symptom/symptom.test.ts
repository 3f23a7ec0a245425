import { quarryLake } from '../../demo/quarry-lake'
import { asTaken, huntOf } from '../hunt'
import { COMMON_METER, failingStates, type FieldTest, type WiringState } from '../record'
import { stationAt, terminalEnd, type ControllerId, type DeviceId, type TerminalId } from '../site'
import {
  CHECKS,
  checkOf,
  readingsOf,
  SYMPTOMS,
  type CheckId,
  type Symptom,
  type SymptomReading,
  type Told,
} from './index'

const A = 'A' as ControllerId
const site = quarryLake()
const at = (t: string) => t as TerminalId
const told = (symptom: Symptom, more: Partial<Told> = {}): Told => ({
  symptom,
  zones: [],
  other: null,
  state: null,
  ...more,
})
/** The valves of the zone that is on in a reading. */
const valvesOf = ({ test }: SymptomReading): DeviceId[] =>
  test.kind === 'water' ? [...(stationAt(site, test.at)?.[1].valves ?? [])] : []
/** The likeliest parts after a symptom alone. */
function likeliest(symptom: Told, more: readonly SymptomReading[] = []): string[] {
  const hunt = huntOf(site, A, { meter: COMMON_METER })!
  for (const r of [...more, ...readingsOf(site, A, symptom)]) hunt.take(r)
  return [...hunt.beliefs().parts].sort((a, b) => b[1] - a[1]).map(([key]) => key)
}

test('each symptom of the wiring becomes readings that lead the hunt where a technician would look first', () => {
  const first = (symptom: Told, n = 1) => likeliest(symptom).slice(0, n)
  expect(first(told('wrong_one', { zones: [at('3')], other: at('7') }))).toEqual(['pair A 3 7'])
  expect(first(told('two_together', { zones: [at('3')], other: at('7') }))[0]).toMatch(/pair A 3 7|touch/)
  expect(first(told('runs_besides', { other: at('7') }))).toEqual(['valve V7'])
  expect(first(told('dry', { zones: [at('3')] }), 4)).toContain('coil V3')
  // It clicked, so its coil and its lead are well: the master valve; and where others water, the valve itself.
  expect(first(told('clicks_no_water', { zones: [at('3')] }))).toEqual(['coil MV'])
  const others = readingsOf(site, A, told('runs_besides', { other: at('5') })).slice(3, 8)
  const own = others.map((r) => ({ ...r, value: { kind: 'waters' as const, valves: valvesOf(r) } }))
  expect(likeliest(told('clicks_no_water', { zones: [at('3')] }), own)[0]).toBe('valve V3')
  const dead = first(told('dead_first_use'), 8)
  expect(dead.some((key) => /^(supply|sensor) A/.test(key))).toBe(true)
  expect(dead.some((key) => key === 'coil MV' || key.startsWith('water A'))).toBe(true)
})

test('what fails in one state is hunted by all readings: it shows in that state only, what is always wrong in any', () => {
  const fails = readingsOf(site, A, told('fails_in_state', { zones: [at('3')], state: 'wet' }))
  expect(fails.map((r) => r.state)).toEqual(['wet'])
  expect(readingsOf(site, A, told('comes_and_goes', { zones: [at('3')] }))[0]!.state).toBe('moved')
  const hunt = huntOf(site, A, { meter: COMMON_METER, failing: ['wet'] })!
  const toCommon = (t: string) => ({ kind: 'ohms', from: terminalEnd(A, t), to: terminalEnd(A, 'C') }) as const
  const sound_ohm = (t: string): number => {
    const seen = hunt.predictor.base(toCommon(t) as FieldTest)
    if (seen?.kind !== 'ohms') throw new Error(`no ohms at ${t}`)
    return seen.mean
  }
  const read = (t: string, ohm: number | null, state?: WiringState): SymptomReading => ({
    test: toCommon(t) as FieldTest,
    value: ohm === null ? { kind: 'open' } : { kind: 'ohm', ohm },
    ...(state ? { state } : {}),
  })
  const readings = [
    ...fails,
    read('3', sound_ohm('3'), 'dry'),
    read('3', sound_ohm('3') + 60, 'wet'),
    read('5', null, 'dry'),
    ...['1', '2', '4', '6', '7', '8'].map((t) => read(t, sound_ohm(t))),
  ]
  expect([...failingStates(site, readings)]).toEqual(['wet'])
  for (const r of readings) hunt.take({ ...r, test: asTaken(r, failingStates(site, readings)) })
  const found = hunt.troubles().map(({ p, parts }) => ({ p, of: hunt.likeliest(parts[0]![0])! }))
  const series = found.find(({ of }) => of.cause === 'series')!
  expect([series.p > 0.95, series.of.states, Math.round(series.of.ohm! / 10)]).toEqual([true, ['wet'], 6])
  const open = found.find(({ of }) => /open/.test(of.cause))!
  expect([open.p > 0.9, open.of.states]).toEqual([true, []])
  // Where nothing is said to fail in a state, states do not count.
  expect(asTaken(read('3', 33, 'dry'), new Set())).toEqual(toCommon('3'))
})

test('what is no matter of the wiring gives no reading and has a check; every check ends, whatever is answered', () => {
  for (const [symptom, { wiring, check, asks }] of Object.entries(SYMPTOMS)) {
    const given = readingsOf(site, A, told(symptom as Symptom, { zones: [at('3')], other: at('7'), state: 'hot' }))
    expect([symptom, given.length > 0]).toEqual([symptom, wiring])
    expect([symptom, wiring || check !== null]).toEqual([symptom, true])
    if (asks === 'two_zones' || asks === 'besides')
      expect(readingsOf(site, A, told(symptom as Symptom, { zones: [at('3')] }))).toEqual([])
  }
  for (const id of Object.keys(CHECKS) as CheckId[]) {
    const { first, looks } = checkOf(id)
    const reached = new Set<string>()
    const follow = (at: string, before: readonly string[]): void => {
      expect([id, at, before.includes(at)]).toEqual([id, at, false])
      reached.add(at)
      const answers = Object.values(looks[at]!.answers)
      expect(answers.length).toBeGreaterThan(1)
      for (const to of answers) if (typeof to === 'string') follow(to, [...before, at])
    }
    follow(first, [])
    expect([...reached].sort()).toEqual(Object.keys(looks).sort())
  }
})

test('a look at what water stands behind carries its caution', () => {
  for (const id of Object.keys(CHECKS) as CheckId[])
    for (const [name, { caution }] of Object.entries(checkOf(id).looks))
      if (/^(seat|bleed|by_hand|water_by_hand)$/.test(name)) expect([id, name, caution]).toEqual([id, name, 'water'])
})
