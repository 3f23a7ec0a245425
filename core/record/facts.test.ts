import { demoProperty } from '../../demo/quarry-lake'
import { terminalEnd } from '../site'
import {
  cabinetTest,
  factsSchema,
  noFacts,
  readingsOf,
  readingsToGoBy,
  standingReadings,
  testKey,
  jobsInOrder,
  visitsInOrder,
  type JobKind,
  withFact,
  type Facts,
  type OhmsTest,
  type Reading,
} from './index'

const demo = demoProperty().facts
const one = demo.readings['spring-2026-1']!
const test_ = one.test as OhmsTest

test('a reading’s value must be of the kind its test gives', () => {
  const parse = (test: unknown, value: unknown) =>
    factsSchema.safeParse({ ...demo, readings: { r: { ...one, test, value } } }).success
  const at = test_.from
  expect(parse(test_, { kind: 'ohm', ohm: 3 })).toBe(true)
  expect(parse(test_, { kind: 'volt', volt: 3 })).toBe(false)
  expect(parse({ kind: 'click', at }, { kind: 'heard', heard: true })).toBe(true)
  expect(parse({ kind: 'click', at }, { kind: 'open' })).toBe(false)
  expect(parse({ kind: 'tester_coil', at }, { kind: 'lamp', lamp: 'lit' })).toBe(false)
  expect(parse({ kind: 'tester_power', at }, { kind: 'lamp', lamp: 'lit' })).toBe(true)
  expect(parse({ kind: 'volts', at: { kind: 'earth', place: 'A' } }, { kind: 'volt', volt: 24 })).toBe(false)
})

test('a test is the same whichever way its leads are held, and no other', () => {
  const back: OhmsTest = { kind: 'ohms', from: test_.to, to: test_.from }
  expect(testKey(back)).toBe(testKey(test_))
  const at = terminalEnd('A', '1')
  const others = [
    test_,
    { kind: 'click', at },
    { kind: 'volts', at },
    { kind: 'supply', controller: 'A' },
    { kind: 'tester_coil', at },
    { kind: 'ohms', from: at, to: { kind: 'earth', place: 'A' } },
  ]
  expect(new Set(others.map((t) => testKey(cabinetTest.parse(t)))).size).toBe(others.length)
})

test('of the same test the last that stands counts; struck ones stay on the list with their reason', () => {
  const again = (minute: number, ohm: number): Reading => ({
    ...one,
    at: `2026-04-11T10:0${minute}:00.000Z`,
    value: { kind: 'ohm', ohm },
  })
  const facts: Facts = {
    ...noFacts(),
    visits: { 'spring-2026': demo.visits['spring-2026']! },
    jobs: { 'spring-2026': demo.jobs['spring-2026']! },
    readings: { a: again(1, 30), b: again(3, 32), c: again(2, 31), d: again(4, 99) },
    strikeOuts: { s: { reading: 'd', at: one.at, author: '', reason: 'clip slipped' } },
  }
  expect(readingsOf(facts, 'spring-2026').map((l) => [l.id, l.struck])).toEqual([
    ['a', null],
    ['c', null],
    ['b', null],
    ['d', 'clip slipped'],
  ])
  expect(standingReadings(facts, 'spring-2026').map((l) => l.id)).toEqual(['b'])
  expect(readingsOf(facts, 'nobody')).toEqual([])
})

test('a hunt goes by what it took along: what was read anew counts instead, what was struck not at all, rings end', () => {
  const [first, second] = ['2', '3'].map((t) => terminalEnd('A', t))
  const base: Facts = { ...demo, readings: {}, strikeOuts: {} }
  const sweep = { ...demo.jobs['spring-2026']!, takes: 'hunt' }
  const hunt = { ...sweep, kind: 'hunt' as const, takes: 'spring-2026' }
  const read = (job: string, from: OhmsTest['from'], ohm: number, at: string): Reading => ({
    ...one,
    job,
    at,
    test: { ...test_, from },
    value: { kind: 'ohm', ohm },
  })
  const facts: Facts = {
    ...base,
    jobs: { 'spring-2026': sweep, hunt },
    readings: {
      a: read('spring-2026', first!, 31, '2026-04-12T08:00:00Z'),
      b: read('spring-2026', second!, 32, '2026-04-12T08:01:00Z'),
      c: read('hunt', second!, 99, '2026-04-12T09:00:00Z'),
      d: read('hunt', terminalEnd('A', '4'), 34, '2026-04-12T09:01:00Z'),
    },
    strikeOuts: { s: { reading: 'd', at: '2026-04-12T09:02:00Z', author: '', reason: 'slipped' } },
  }
  expect(factsSchema.safeParse(facts).success).toBe(true)
  expect(readingsToGoBy(facts, 'hunt').map((l) => l.id)).toEqual(['a', 'c'])
  expect(standingReadings(facts, 'hunt').map((l) => l.id)).toEqual(['c'])
})

test('facts come in once, in any order that keeps owners first, and never change what is there', () => {
  const visit = { kind: 'visit' as const, fact: demo.visits['spring-2026']! }
  const job = { kind: 'job' as const, fact: demo.jobs['spring-2026']! }
  const reading = { kind: 'reading' as const, fact: one }
  const strike = { kind: 'strikeOut' as const, fact: { reading: 'r', at: one.at, author: '', reason: 'x' } }
  const acceptance = { kind: 'acceptance' as const, fact: { reading: 'r', at: one.at, author: '', reason: 'x' } }
  const missing = (facts: Facts, id: string, body: Parameters<typeof withFact>[2]) => {
    const o = withFact(facts, id, body)
    return o.ok ? null : o.refusals[0]!.params.id
  }
  expect(missing(noFacts(), 'r', reading)).toBe('spring-2026')
  expect([missing(noFacts(), 's', strike), missing(noFacts(), 'x', acceptance)]).toEqual(['r', 'r'])
  expect(missing(noFacts(), 'spring-2026', job)).toBe('spring-2026')
  const put = (facts: Facts, id: string, body: Parameters<typeof withFact>[2]): Facts => {
    const o = withFact(facts, id, body)
    if (!o.ok) throw new Error(id)
    return o.value
  }
  const all = [
    ['spring-2026', visit],
    ['spring-2026', job],
    ['r', reading],
    ['s', strike],
    ['x', acceptance],
  ].reduce((facts, [id, body]) => put(facts, id as string, body as Parameters<typeof withFact>[2]), noFacts())
  expect(put(all, 'r', { kind: 'reading', fact: { ...one, value: { kind: 'open' } } })).toBe(all)
  expect(all.readings.r).toEqual(one)
})

test('visits and jobs come latest first by their moment, whatever offset it is written with', () => {
  const at = (when: string) => ({ ...demo.visits['spring-2026']!, at: when })
  const facts = {
    ...noFacts(),
    visits: { a: at('2026-04-11T09:00:00Z'), b: at('2026-04-11T09:30:00+02:00'), c: at('2026-04-11T08:30:00-01:00') },
  }
  expect(visitsInOrder(facts)).toEqual(['c', 'a', 'b'])
  const job = (kind: JobKind, visit: 'a' | 'b' | 'c') => ({
    ...demo.jobs['spring-2026']!,
    at: facts.visits[visit].at,
    kind,
    visit,
  })
  const jobs = { x: job('sweep', 'a'), y: job('hunt', 'b'), z: job('sweep', 'c') }
  expect(jobsInOrder({ ...facts, jobs }, 'sweep')).toEqual(['z', 'x'])
  expect(jobsInOrder({ ...facts, jobs })).toEqual(['z', 'x', 'y'])
})
