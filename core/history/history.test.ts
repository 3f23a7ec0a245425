import { climateOf } from '../circuit'
import { judgeSweep, predict, sceneOf, stateOf, type Scene } from '../expect'
import { COMMON_METER, noFacts, type Facts, type OhmsTest, type OhmsValue, type Part } from '../record'
import { Draft, terminalEnd, type ControllerId, type Site, type TerminalId } from '../site'
import { demoProperty } from '../../demo/quarry-lake'
import { baselineOf, contradictionsOf, driftOf, newestOf, pastOf, pastOfTest, statesOf, threadHistory } from './index'
import { asReadNow, compareReadings } from './compare'

const A = 'A' as ControllerId
const test_ = (tag: string): OhmsTest => ({
  kind: 'ohms',
  from: terminalEnd(A, tag as TerminalId),
  to: terminalEnd(A, 'C' as TerminalId),
})
const draft = () =>
  new Draft('years')
    .place('A', 'cabinet')
    .place('B')
    .place('D')
    .controller('A', 'A', 3)
    .coilKind('k', 33)
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 60],
        ['D', 120],
      ],
      cores: ['white', 'r', 's', 't'],
    })
    .valve('V1', 'B', 'k')
    .valve('V2', 'D', 'k')
    .valve('V3', 'D', 'k')
    .join('A', ['A:C', 'K.white>'])
    .join('A', ['A:1', 'K.r>'])
    .join('A', ['A:2', 'K.s>'])
    .join('A', ['A:3', 'K.t>'])
    .join('B', ['K.white<', 'V1.b', 'K.white>'])
    .join('B', ['K.r<', 'V1.a'])
    .join('D', ['K.white<', 'V2.b', 'V3.b'])
    .join('D', ['K.s<', 'V2.a'])
    .join('D', ['K.t<', 'V3.a'])
    .station('A:1', 'One', ['V1'])
    .station('A:2', 'Two', ['V2'])
    .station('A:3', 'Three', ['V3'])
const site = draft().site()
const sceneAtOf =
  (s: Site) =>
  (ground_C: number, coil_C: number | null): Scene =>
    sceneOf(s, climateOf(s, ground_C, coil_C))
const sceneAt = sceneAtOf(site)
const expected = (tag: string, ground_C: number) => {
  const e = predict(sceneAt(ground_C, null), test_(tag), COMMON_METER)
  if (e.kind !== 'ohms') throw new Error(e.kind)
  return e.expected_ohm
}
type Sweep = [id: string, day: string, ground_C: number, readings: Record<string, number | 'OL'>]
function factsOf(...sweeps: Sweep[]): Facts {
  const facts = noFacts()
  for (const [id, day, ground_C, readings] of sweeps) {
    const at = `${day}T09:00:00.000Z`
    facts.visits[id] = { at, author: '', people: [] }
    facts.jobs[id] = {
      visit: id,
      kind: 'sweep',
      at,
      author: '',
      controller: A,
      title: id,
      ground_C,
      coil_C: null,
      meter: COMMON_METER,
    }
    for (const [tag, x] of Object.entries(readings)) {
      const value: OhmsValue = x === 'OL' ? { kind: 'open' } : { kind: 'ohm', ohm: x }
      facts.readings[`${id}-${tag}`] = {
        job: id,
        at,
        author: '',
        revision: 0,
        test: test_(tag),
        off: 'all_leads',
        meter: COMMON_METER,
        ground_C,
        value,
      }
    }
  }
  return facts
}
const historyOf = (facts: Facts, tag: string, ground_C: number, s = site) =>
  threadHistory(
    sceneAtOf(s)(ground_C, null),
    sceneAtOf(s),
    test_(tag),
    COMMON_METER,
    pastOfTest(pastOf(facts), test_(tag)),
  )

describe('two bands', () => {
  test('a coil 4 % off its sheet fits at 5 °C and at 25 °C: the baseline goes with the temperature', () => {
    const facts = factsOf(
      ['a', '2024-10-01', 25, { 1: expected('1', 25) * 1.04 }],
      ['b', '2025-03-01', 5, { 1: expected('1', 5) * 1.04 }],
    )
    const { points, baseline } = historyOf(facts, '1', 5)
    expect(points.map((p) => p.code)).toEqual(['fits', 'fits'])
    expect(points[0]!.now_ohm).toBeCloseTo(points[1]!.read_ohm!, 6)
    const apart = 2 * (0.01 * baseline!.corrected_ohm + 0.2)
    expect(baseline!.high_ohm - baseline!.corrected_ohm).toBeCloseTo(apart, 9)
  })
  test('inside one band only is doubtful, and a doubtful reading does not become the baseline', () => {
    const base = expected('1', 15)
    const facts = factsOf(
      ['a', '2024-10-01', 15, { 1: base }],
      ['b', '2025-03-01', 15, { 1: base + 1.5 }],
      ['c', '2025-10-01', 15, { 1: base + 1.6 }],
      ['d', '2026-03-01', 15, { 1: base + 6 }],
    )
    const { points, baseline } = historyOf(facts, '1', 15)
    expect(points.map((p) => p.code)).toEqual(['fits', 'drifted', 'drifted', 'high'])
    expect(baseline!.reading).toBe('a-1')
  })
  test('a reading outside the record accepted by hand is the baseline: as before is doubtful, back inside the record alone too', () => {
    const base = expected('1', 15)
    const facts = factsOf(
      ['a', '2024-10-01', 15, { 1: base + 5 }],
      ['b', '2025-03-01', 15, { 1: base + 5.2 }],
      ['c', '2025-10-01', 15, { 1: base }],
    )
    facts.acceptances.x = { reading: 'a-1', at: '2024-10-01T10:00:00Z', author: '', reason: 'the coil is another kind' }
    expect(historyOf(facts, '1', 15).points.map((p) => p.code)).toEqual(['high', 'as_before', 'drifted'])
  })
  test('a new coil or joint ends the old baseline; what was struck out never was one', () => {
    const renewed = draft().valve('N', 'B', 'k').site()
    const changed = {
      ...renewed,
      devices: {
        ...renewed.devices,
        V1: {
          ...(renewed.devices['V1' as never] as object),
          installed: { value: '2025-01-01', how: 'seen', on: null },
        },
      },
    } as unknown as Site
    const base = expected('1', 15)
    const facts = factsOf(['a', '2024-10-01', 15, { 1: base - 1.4 }], ['b', '2025-03-01', 15, { 1: base + 1.4 }])
    expect(historyOf(facts, '1', 15).points.map((p) => p.code)).toEqual(['fits', 'drifted'])
    expect(historyOf(facts, '1', 15, changed).points.map((p) => p.code)).toEqual(['fits', 'fits'])
    const struck = {
      ...facts,
      strikeOuts: { s: { reading: 'a-1', at: '2024-10-01T10:00:00Z', author: '', reason: 'clip slipped' } },
    }
    expect(historyOf(struck, '1', 15).points.map((p) => p.code)).toEqual(['fits'])
  })
  test('a joint on the common that creeps is told from the baselines, beyond it and not before, as doubtful', () => {
    const sound = { 1: expected('1', 15), 2: expected('2', 15), 3: expected('3', 15) }
    const past = pastOf(factsOf(['a', '2024-10-01', 15, sound]))
    const scene = sceneAt(15, null)
    const now = { 1: sound[1], 2: sound[2] + 1.7, 3: sound[3] + 1.7 }
    const observations = Object.entries(now).map(([tag, ohm]) => ({
      test: test_(tag),
      value: { kind: 'ohm' as const, ohm },
      meter: COMMON_METER,
      baseline: baselineOf(scene, sceneAt, test_(tag), COMMON_METER, pastOfTest(past, test_(tag))),
    }))
    const { judged, joint } = judgeSweep(scene, observations)
    expect(judged.map((j) => stateOf(j.verdict.code))).toEqual(['fits', 'doubtful', 'doubtful'])
    expect(joint.conclusions).toMatchObject([{ kind: 'resistive', where: 'common', explains: [1, 2], doubtful: true }])
    expect((joint.conclusions[0] as { excess_ohm: number }).excess_ohm).toBeCloseTo(1.7, 1)
  })
  test('a swap of like threads is sure only beside baselines that differ by enough', () => {
    const [two, three] = [expected('2', 15) - 2.4, expected('3', 15) + 2.4]
    const scene = sceneAt(15, null)
    const run = (ohms: [number, number], withPast: boolean) => {
      const past = pastOf(factsOf(['a', '2024-10-01', 15, withPast ? { 2: two, 3: three } : {}]))
      return judgeSweep(
        scene,
        ohms.map((ohm, i) => {
          const test = test_(String(i + 2))
          return {
            test,
            value: { kind: 'ohm' as const, ohm },
            meter: COMMON_METER,
            baseline: baselineOf(scene, sceneAt, test, COMMON_METER, pastOfTest(past, test)),
          }
        }),
      ).joint.conclusions
    }
    expect(run([three, two], true)).toMatchObject([{ kind: 'swapped', sure: true, doubtful: true }])
    expect(run([three, two], false)).toEqual([])
  })
})

test('two sweeps side by side: steady within both meters’ errors at one temperature, changed beyond, opened and closed', () => {
  const [cold, warm] = [sceneAt(5, null), sceneAt(25, null)]
  const reading = (ohm: number | 'OL', ground_C: number) =>
    Object.values(factsOf(['x', '2025-01-01', ground_C, { 1: ohm }]).readings)[0] as Parameters<
      typeof compareReadings
    >[0]
  expect(compareReadings(reading(expected('1', 5), 5), reading(expected('1', 25) + 0.5, 25), cold, warm)).toMatchObject(
    { code: 'steady', change_ohm: expect.closeTo(0.5, 6) as number },
  )
  expect(compareReadings(reading(expected('1', 5), 5), reading(expected('1', 25) + 2, 25), cold, warm).code).toBe(
    'changed',
  )
  expect([
    compareReadings(reading(34, 5), reading('OL', 5), cold, cold).code,
    compareReadings(reading('OL', 5), reading(34, 5), cold, cold).code,
    compareReadings(reading('OL', 5), reading('OL', 5), cold, cold).code,
  ]).toEqual(['opened', 'closed_again', 'both_open'])
})

/** Steady pseudo-random normal numbers (Box and Muller on a 32-bit LCG). */
function normals(seed: number): () => number {
  let state = seed
  const uniform = () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return (state + 0.5) / 2 ** 32
  }
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
}

describe('drift', () => {
  const points = (slopePerYear: number, years: number[], sigma: number, random: () => number) =>
    years.map((year) => ({
      at_days: year * 365.25,
      excess_ohm: 0.3 + slopePerYear * year + sigma * random(),
      sigma_ohm: sigma,
    }))
  test('agrees with the normal equations solved the plain way', () => {
    const random = normals(4)
    for (let k = 0; k < 50; k++) {
      const p = points(1.5, [0, 0.5, 1, 1.5, 2.2], 0.15, random).map((x, i) => ({ ...x, sigma_ohm: 0.1 + 0.05 * i }))
      const w = p.map((x) => 1 / x.sigma_ohm ** 2)
      const S = (f: (x: (typeof p)[number]) => number) => p.reduce((sum, x, i) => sum + w[i]! * f(x), 0)
      const [t, y, tt, ty, one] = [
        S((x) => x.at_days),
        S((x) => x.excess_ohm),
        S((x) => x.at_days ** 2),
        S((x) => x.at_days * x.excess_ohm),
        S(() => 1),
      ]
      const slope = (one * ty - t * y) / (one * tt - t * t)
      const drift = driftOf(p, 8)!
      expect(drift.ohmPerYear / 365.25 / slope).toBeCloseTo(1, 9)
      expect(drift.sigma_ohmPerYear / 365.25 / Math.sqrt(one / (one * tt - t * t))).toBeCloseTo(1, 9)
      const crossing = (8 - (y - slope * t) / one) / slope
      expect(Math.abs(drift.reaches_days - crossing)).toBeLessThan(1.01)
    }
  })
  test('its dates hold as often as they say: eight in ten between earliest and latest', () => {
    const random = normals(77)
    const truth_days = ((2.6 - 0.3) / 1.1) * 365.25
    let [told, inside] = [0, 0]
    for (let k = 0; k < 3000; k++) {
      const drift = driftOf(points(1.1, [0, 0.5, 1, 1.5], 0.27, random), 2.6)
      if (!drift) continue
      told++
      if (drift.earliest_days <= truth_days && (drift.latest_days === null || truth_days <= drift.latest_days)) inside++
    }
    expect(told).toBeGreaterThan(2000)
    expect(inside / told).toBeGreaterThan(0.74)
    expect(inside / told).toBeLessThan(0.88)
  })
  test('steady readings, one reading and falling ones show none', () => {
    const random = normals(9)
    let false_ = 0
    for (let k = 0; k < 1000; k++) if (driftOf(points(0, [0, 1, 2, 3], 0.27, random), 2.6)) false_++
    expect(false_).toBeLessThan(40)
    expect(driftOf(points(1, [0], 0.2, random), 2)).toBeNull()
    expect(driftOf(points(-1, [0, 1, 2], 0.2, random), 2)).toBeNull()
  })
})

test('where the record knows of no way, history still lists what was read', () => {
  const bare = new Draft('bare').place('A', 'cabinet').controller('A', 'A', 1).site()
  const facts = factsOf(['a', '2024-10-01', 15, { 1: 34 }])
  expect(historyOf(facts, '1', 15, bare)).toMatchObject({
    points: [{ read_ohm: 34, code: 'fits_bounds' }],
    baseline: null,
    drift: null,
  })
})

test('the states of all readings at once are those of each thread’s own history', () => {
  const { site: demo, facts } = demoProperty()
  const at = sceneAtOf(demo)
  const states = statesOf(sceneOf(demo), at, facts)
  let compared = 0
  for (const past of pastOf(facts).values()) {
    for (const point of threadHistory(sceneOf(demo), at, past[0]!.reading.test, COMMON_METER, past).points) {
      expect([point.id, states.get(point.id)]).toEqual([point.id, point.state])
      compared++
    }
  }
  expect(compared).toBe(states.size)
  expect([...states.values()].filter((s) => s === 'doubtful').length).toBe(1)
  expect(
    [...states]
      .filter(([, s]) => s === 'fault')
      .map(([id]) => id)
      .sort(),
  ).toEqual(
    [
      'boathouse-spring-2026-2',
      'boathouse-spring-2026-3',
      ...['9', '10', '11', '12', '18'].map((t) => `spring-2026-${t}`),
    ].sort(),
  )
})

test('a thread stands as it was read last: a visit in which nothing is read yet, or only elsewhere, takes nothing away', () => {
  const at = (...sweeps: Sweep[]) => {
    const past = pastOf(factsOf(...sweeps))
    const of = (tag: string) => newestOf(sceneAt(12, null), sceneAt, test_(tag), pastOfTest(past, test_(tag)))
    return ['1', '2'].map((tag) => [of(tag)?.state ?? null, of(tag)?.past.reading.at.slice(0, 10) ?? null])
  }
  const spring: Sweep = ['s', '2026-04-01', 12, { 1: expected('1', 12), 2: 'OL' }]
  const known = [
    ['fits', '2026-04-01'],
    ['fault', '2026-04-01'],
  ]
  expect(at(spring)).toEqual(known)
  expect(at(spring, ['hunt', '2026-05-01', 14, {}])).toEqual(known)
  expect(at(spring, ['hunt', '2026-05-01', 14, { 2: expected('2', 14) }])).toEqual([known[0], ['fits', '2026-05-01']])
  expect(at(['hunt', '2026-05-01', 14, { 2: expected('2', 14) }], spring)[1]).toEqual(['fits', '2026-05-01'])
})

test('a thread that was mended since, or of which water says otherwise, is not known again before it is read', () => {
  const base = factsOf(['s', '2026-04-01', 12, { 1: expected('1', 12), 2: 'OL', 3: 'OL' }])
  const scene = sceneAt(12, null)
  const states = (facts: Facts) => {
    const isContradicted = contradictionsOf(scene, A, facts)
    return ['1', '2', '3'].map((tag) => {
      const newest = newestOf(scene, sceneAt, test_(tag), pastOfTest(pastOf(facts), test_(tag)))!
      return isContradicted(tag as TerminalId, newest) ? 'none' : newest.state
    })
  }
  const found = (where: object, day: string): Facts => ({
    ...base,
    findings: {
      f: { job: 's', at: `${day}T10:00:00Z`, author: '', where: where as Part, says: '', belief: null, how: '' },
    },
  })
  expect(states(base)).toEqual(['fits', 'fault', 'fault'])
  const lead = { kind: 'run', cable: 'K', core: 's', from: 'A', to: 'D' }
  expect(states(found(lead, '2026-05-01'))).toEqual(['fits', 'none', 'fault'])
  expect(states(found(lead, '2026-03-01'))).toEqual(['fits', 'fault', 'fault'])
  expect(states(found({ ...lead, core: 'white' }, '2026-05-01'))).toEqual(['none', 'none', 'none'])
  expect(states(found({ kind: 'coil', device: 'V3' }, '2026-05-01'))).toEqual(['fits', 'fault', 'none'])
  expect(states(found({ kind: 'supply', controller: 'A' }, '2026-05-01'))).toEqual(['fits', 'fault', 'fault'])
  const water = (tag: string, valves: string[]) => {
    const reading = { ...Object.values(base.readings)[0]!, at: '2026-05-01T10:00:00Z' }
    const test = { kind: 'water', at: terminalEnd(A, tag as TerminalId) }
    const watered = { ...reading, test, value: { kind: 'waters', valves } } as never
    return { ...base, readings: { ...base.readings, w: watered } }
  }
  expect(states(water('2', ['V2']))).toEqual(['fits', 'none', 'fault'])
  expect(states(water('2', []))).toEqual(['fits', 'fault', 'fault'])
  expect(states(water('1', []))).toEqual(['none', 'fault', 'fault'])
})

test('a reading taken along is what a sound thread would now show by the meter of now; open stays open', () => {
  const reading = (value: OhmsValue, ground_C: number) => ({
    ...factsOf(['s', '2024-04-10', ground_C, { 1: 30 }]).readings['s-1']!,
    value,
  })
  const [cold, warm] = [sceneAt(4, null), sceneAt(24, null)]
  const leads = { ...COMMON_METER, leadZero_ohm: 0.4 }
  const then = {
    ...reading({ kind: 'ohm', ohm: expected('1', 4) + 0.2 }, 4),
    meter: { ...COMMON_METER, leadZero_ohm: 0.2 },
  }
  expect(asReadNow(then, cold, warm, leads)).toEqual({ kind: 'ohm', ohm: expect.closeTo(expected('1', 24) + 0.4, 6) })
  expect(asReadNow(reading({ kind: 'open' }, 4), cold, warm, leads)).toEqual({ kind: 'open' })
})
