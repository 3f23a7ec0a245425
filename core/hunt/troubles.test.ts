import type { Beliefs, Explanation } from './beliefs'
import type { Catalogue, FaultHypothesis } from './catalogue'
import { troublesIn } from './troubles'

const KEYS = ['common', 'joint', 'coil', 'lead'] as const
const catalogue = { faults: KEYS.map((key) => ({ key })) } as unknown as Catalogue
const set = (p: number, ...keys: (typeof KEYS)[number][]): Explanation => ({
  p,
  faults: keys.map((k) => ({ fault: KEYS.indexOf(k) }) as FaultHypothesis),
})
const beliefs = (...islands: Explanation[][]): Beliefs => ({
  parts: new Map(),
  nothing: 0,
  misread: 0,
  islands,
  unread: [],
  strain: 0,
  worst: null,
})

test('parts that shut each other out are one trouble, whose parts add up to it; those that are there together are two', () => {
  const [one, other] = troublesIn(
    beliefs([set(0.5, 'common', 'coil'), set(0.3, 'joint', 'coil'), set(0.15, 'common', 'lead'), set(0.05)]),
    catalogue,
  )
  expect(one!.parts.map(([k]) => k)).toEqual(['coil', 'lead'])
  expect(other!.parts.map(([k]) => k)).toEqual(['common', 'joint'])
  for (const t of [one!, other!]) {
    expect(t.p).toBeCloseTo(0.95, 9)
    expect(t.parts.reduce((s, [, p]) => s + p, 0)).toBeCloseTo(t.p, 9)
  }
})

test('what readings explain apart is wrong apart, the likeliest first; what is next to never there is no trouble', () => {
  const found = troublesIn(
    beliefs([set(0.4, 'common'), set(0.6)], [set(0.99, 'coil'), set(0.01, 'coil', 'lead')]),
    catalogue,
  )
  expect(found.map((t) => [t.parts.map(([k]) => k), t.p])).toEqual([
    [['coil'], expect.closeTo(1, 9)],
    [['common'], expect.closeTo(0.4, 9)],
  ])
  expect(troublesIn(beliefs(), catalogue)).toEqual([])
})
