import { poweredOf, climateOf } from '../circuit'
import { COMMON_METER, type OhmsTest } from '../record'
import { applyBatch, checkSite, clearCommands, createRecord, terminalEnd, type End, type Site } from '../site'
import type { RecordOf } from '../site'
import { twoBoxes } from '../../tests/two-boxes'
import { judge, predict, sceneOf } from './index'

const at = (t: string) => terminalEnd('A', t) as Extract<End, { kind: 'terminal' }>
const toC = (t: string): OhmsTest => ({ kind: 'ohms', from: at(t), to: at('C') })
const earth = { kind: 'earth', place: 'A' } as End
const plain = twoBoxes()
type Written = RecordOf<'defects'>
const withDefect = (record: Written, site = plain): Site => {
  const made = applyBatch(site, [createRecord('defects', 'd1', record)])
  if (!made.ok) throw new Error(JSON.stringify(made.refusals))
  return made.value.site
}
const ohmsOf = (site: Site, test: OhmsTest) => {
  const e = predict(sceneOf(site), test, COMMON_METER)
  if (e.kind !== 'ohms') throw new Error(e.kind)
  return e
}
const grip = { kind: 'grip', end: { kind: 'port', device: 'V3', port: 'a' } } as const

test('ohms in series are in the sum, as a line of their own, and of that thread alone', () => {
  for (const record of [
    { ...grip, ohm: 25 },
    { kind: 'series', cable: 'K', core: 'c3', from: 'A', ohm: 25 },
  ] as const) {
    const site = withDefect(record as Written)
    const [was, is] = [ohmsOf(plain, toC('3')), ohmsOf(site, toC('3'))]
    expect(is.expected_ohm).toBeCloseTo(was.expected_ohm + 25, 6)
    expect(is.terms.find((t) => t.kind === 'known')).toMatchObject({ ohm: expect.closeTo(25, 6) })
    expect(is.terms.reduce((s, t) => s + t.ohm, 0)).toBeCloseTo(is.expected_ohm, 9)
    expect(is.high_ohm - is.expected_ohm).toBeGreaterThan(was.high_ohm - was.expected_ohm)
    expect(ohmsOf(site, toC('4'))).toEqual(ohmsOf(plain, toC('4')))
  }
})

test('an open grip and a bare screw read open for certain', () => {
  const open = predict(sceneOf(withDefect({ ...grip, ohm: null } as Written)), toC('3'), COMMON_METER)
  expect(open).toEqual({ kind: 'open' })
  const landing = Object.entries(plain.splices).find(([, s]) =>
    s.ends.some((e) => e.kind === 'terminal' && (e.terminal as string) === '3'),
  )![0]
  const unlanded = applyBatch(plain, [{ do: 'remove', in: 'splices', id: landing }])
  if (!unlanded.ok) throw new Error('landing')
  const { site } = unlanded.value
  expect(predict(sceneOf(site), toC('3'), COMMON_METER).kind).toBe('bounds')
  const bare = withDefect({ kind: 'bare', controller: 'A', terminal: '3' } as Written, site)
  expect(predict(sceneOf(bare), toC('3'), COMMON_METER)).toEqual({ kind: 'open' })
})

test('cores that touch are two ways side by side; a leak that is known is no alarm, half of it is', () => {
  const touching = withDefect({ kind: 'touch', cable: 'K', core: 'c1', other: 'c2', from: 'A', ohm: 10 } as Written)
  const [one, two] = ['1', '2'].map((t) => ohmsOf(plain, toC(t)).expected_ohm) as [number, number]
  // The common is shared, a few hundredths of an ohm of it.
  expect(ohmsOf(touching, toC('1')).expected_ohm).toBeCloseTo(1 / (1 / one + 1 / (two + 10)), 0)
  const end = { kind: 'core', cable: 'K', core: 'c1', stop: 'A', side: 'leaves' }
  const scene = sceneOf(withDefect({ kind: 'leak', end, ohm: 4000 } as Written))
  const said = (t: string, ohm: number) =>
    judge(scene, { kind: 'ohms', from: at(t), to: earth }, { kind: 'ohm', ohm }, COMMON_METER).verdict.code
  expect([said('1', 4000), said('2', 4050), said('1', 1500)]).toEqual(['earth_known', 'earth_known', 'earth_fault'])
})

test('what is known is told of and cleared; what lies on nothing counts for nothing and is told as such', () => {
  const site = withDefect({ ...grip, ohm: 25 } as Written)
  const [found] = checkSite(site).filter((f) => f.path[0] === 'defects')
  expect(found).toMatchObject({ code: 'known_grip', params: { at: 'B2' } })
  const cleared = applyBatch(site, clearCommands(site, found!)!)
  expect(cleared.ok && cleared.value.site).toEqual(plain)
  const moot = withDefect({ kind: 'series', cable: 'gone', core: 'c1', from: 'A', ohm: 25 } as Written)
  expect(checkSite(moot).map((f) => f.code)).toContain('defect_moot')
  expect(ohmsOf(moot, toC('1'))).toEqual(ohmsOf(plain, toC('1')))
})

test('a transformer that was measured has its own unloaded volts', () => {
  const set = { do: 'set', in: 'controllers', id: 'A', field: 'transformer', value: { open_V: 29.5 } } as const
  const made = applyBatch(plain, [set])
  if (!made.ok) throw new Error(JSON.stringify(made.refusals))
  const conditions = {
    climate: climateOf(plain),
    frequency_Hz: 60,
    phase: 'optimistic',
    mains_ratio: 1,
    wire: 'nominal',
    faces: new Map(),
    turns: new Map(),
  } as const
  expect([plain, made.value.site].map((s) => poweredOf(s, conditions).sources[0]!.open_V)).toEqual([27, 29.5])
})
