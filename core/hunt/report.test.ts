import { randomSite } from '../../tests/random-site'
import { COMMON_METER, partKey, testKey, type FieldTest, type ReadingValue } from '../record'
import { lookUp, getOrThrow, type ControllerId, type DeviceId, type TerminalId } from '../site'
import { huntOf, type Hunt } from './hunt'
import { goOn, reportOf, type HuntStep } from './report'

const A = 'A' as ControllerId
const { site, stations } = randomSite(12, { loops: false })
const at = (terminal: string) => ({ kind: 'terminal', controller: A, terminal: terminal as TerminalId }) as const
const begun = (): Hunt => huntOf(site, A, { meter: COMMON_METER })!
const dry = stations[1]!
const water = (t: string): HuntStep => ({
  test: { kind: 'water', at: at(t) },
  value: {
    kind: 'waters',
    valves: t === dry ? [] : (Object.values(site.stations).find((s) => s.terminal === t)!.valves as DeviceId[]),
  },
})
const ohms = (value: ReadingValue): HuntStep => ({
  test: { kind: 'ohms', from: at(dry), to: at('C') } as FieldTest,
  value,
})
const steps: HuntStep[] = [...stations.map(water), ohms({ kind: 'open' })]

test('a report is plain values, the likeliest part first, no part without a place, and goes through JSON unharmed', () => {
  const report = reportOf(goOn(begun(), [], steps)!)
  expect(JSON.parse(JSON.stringify(report))).toEqual(report)
  expect(report.parts.map((p) => p.p)).toEqual([...report.parts.map((p) => p.p)].sort((a, b) => b - a))
  for (const p of report.parts) {
    expect(p.places.length).toBeGreaterThan(0)
    for (const place of p.places) expect(lookUp(site.places, place)).toBeDefined()
    expect(
      p.causes.reduce((s, c) => s + c.p, 0) === 0 || Math.abs(p.causes.reduce((s, c) => s + c.p, 0) - 1) < 1e-9,
    ).toBe(true)
  }
  expect(report.end).toBe('open')
  expect(report.next!.outcomes.reduce((s, o) => s + o.p, 0)).toBeGreaterThan(0.95)
  expect(getOrThrow(site.places, report.next!.place)).toBeDefined()
})

test('what speaks most for the likeliest part is one of the readings; before any nothing speaks', () => {
  const report = reportOf(goOn(begun(), [], steps)!)
  expect(
    report.telling === null || steps.some((s) => 'test' in s && testKey(s.test) === testKey(report.telling!.test)),
  ).toBe(true)
  const low = reportOf(goOn(begun(), [], [...steps.slice(0, -1), ohms({ kind: 'ohm', ohm: 12 })])!)
  expect(low.telling && [testKey(low.telling.test), low.telling.value]).toEqual([
    testKey((steps.at(-1) as { test: FieldTest }).test),
    { kind: 'ohm', ohm: expect.closeTo(12, 0) },
  ])
  expect(reportOf(begun()).telling).toBeNull()
})

test('going on step by step ends where starting with all of them does; other steps than taken begin anew', () => {
  const byOne = begun()
  for (let n = 0; n < steps.length; n++) expect(goOn(byOne, steps.slice(0, n), steps.slice(0, n + 1))).toBe(byOne)
  const [a, b] = [reportOf(byOne), reportOf(goOn(begun(), [], steps)!)]
  expect(a.parts.map((p) => p.key)).toEqual(b.parts.map((p) => p.key))
  a.parts.forEach((p, i) => expect(p.p).toBeCloseTo(b.parts[i]!.p, 9))
  expect(goOn(byOne, steps, steps.slice(1))).toBeNull()
  expect(goOn(byOne, steps, [...steps.slice(0, -1), ohms({ kind: 'ohm', ohm: 36 })])).toBeNull()
})

test('a mended part is believed no more, what it showed in is asked again, and what it did not touch still counts', () => {
  const hunt = goOn(begun(), [], steps)!
  const [first] = reportOf(hunt).parts
  const other = stations.find((s) => s !== dry)!
  const untouched = hunt.predictor.mayAffect(
    { kind: 'water', at: at(other) },
    hunt.catalogue.faults.find((f) => f.key === first!.key)!,
  )
  goOn(hunt, steps, [...steps, { mended: first!.where }])
  const after = reportOf(hunt)
  expect(after.parts.some((p) => p.key === first!.key)).toBe(false)
  // Its own zone is asked for again, what the repair could not have touched is not.
  const zone = (t: string) => testKey({ kind: 'water', at: at(t) })
  expect([after.counted.includes(zone(dry)), after.counted.includes(zone(other))]).toEqual([false, true])
  expect(after.minutes).toBe(reportOf(goOn(begun(), [], steps)!).minutes)
  // The zone waters again: nothing is left but a second fault that hides.
  goOn(
    hunt,
    [...steps, { mended: first!.where }],
    [
      ...steps,
      { mended: first!.where },
      {
        test: { kind: 'water', at: at(dry) },
        value: {
          kind: 'waters',
          valves: Object.values(site.stations).find((s) => s.terminal === dry)!.valves as DeviceId[],
        },
      },
    ],
  )
  expect(reportOf(hunt).nothing).toBeGreaterThan(0.8)
  expect(untouched).toBe(false)
})

test('two things wrong: each has parts and a test of its own, and one walk serves both, in either order', () => {
  const [one, two] = [stations[0]!, stations.at(-1)!]
  const read = (t: string, value: ReadingValue): HuntStep => ({
    test: { kind: 'ohms', from: at(t), to: at('C') } as FieldTest,
    value,
  })
  const usual = (t: string): number => {
    const base = begun().predictor.base({ kind: 'ohms', from: at(t), to: at('C') } as FieldTest)
    return base?.kind === 'ohms' ? base.mean : 0
  }
  const sound = stations.filter((t) => t !== one && t !== two)
  const hunt = goOn(
    begun(),
    [],
    [
      ...sound.map((t) => read(t, { kind: 'ohm', ohm: usual(t) })),
      read(one, { kind: 'open' }),
      read(two, { kind: 'ohm', ohm: usual(two) + 60 }),
    ],
  )!
  const { troubles, round } = reportOf(hunt)
  const wrong = troubles.filter((x) => x.wrong)
  expect(wrong).toHaveLength(2)
  const keys = wrong.map((x) => new Set(x.parts.map((p) => p.key)))
  expect([...keys[0]!].filter((k) => keys[1]!.has(k))).toEqual([])
  for (const x of wrong) {
    expect(x.next).not.toBeNull()
    // What its test would tell is which of its own parts it is.
    const [likeliest] = [...x.next!.outcomes].sort((a, b) => b.p - a.p)
    expect(
      likeliest!.parts.every((p) => p.where === null || x.parts.some((own) => own.key === partKey(p.where!))),
    ).toBe(true)
  }
  for (const order of ['nearest', 'worst'] as const) {
    const errands = round[order].flatMap((stop) => stop.errands)
    expect(errands.map((e) => e.trouble).sort()).toEqual([0, 1])
    for (const { trouble, test } of errands) expect(test).toEqual(troubles[trouble]!.next!.test)
    expect(new Set(round[order].map((stop) => stop.place)).size).toBe(round[order].length)
  }
  const minutes = (order: 'nearest' | 'worst') => round[order].reduce((sum, stop) => sum + stop.minutes, 0)
  expect(minutes('nearest')).toBeLessThanOrEqual(minutes('worst') + 1e-9)
})
