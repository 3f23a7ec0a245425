import { climateOf } from '../circuit'
import { COMMON_METER, type Meter, type OhmsValue } from '../record'
import { Draft, terminalEnd, type ControllerId, type Site, type TerminalId } from '../site'
import { describe as tell, judge, judgeSweep, predict, readText, sceneOf, sceneWith, tagsText } from './index'

const A = 'A' as ControllerId
const test_ = (from: string, to = 'C') => ({
  kind: 'ohms' as const,
  from: terminalEnd(A, from as TerminalId),
  to: terminalEnd(A, to as TerminalId),
})
const read = (x: number | 'OL'): OhmsValue => (x === 'OL' ? { kind: 'open' } : { kind: 'ohm', ohm: x })

/** Stations 1…n, one box each, 50 m apart on a multi-core of 18 AWG; `common` the cores of the common in parallel. */
function row(n: number, common = ['white'], tweak: (d: Draft) => Draft = (d) => d): Site {
  const d = new Draft('row').place('A', 'cabinet').controller('A', 'A', n).coilKind('k', 33)
  const stops: [string, number][] = [
    ['A', 0],
    ...Array.from({ length: n }, (_, i): [string, number] => [`B${i + 1}`, 50 * (i + 1)]),
  ]
  for (let i = 1; i <= n; i++)
    d.place(`B${i}`)
      .valve(`V${i}`, `B${i}`, 'k')
      .station(`A:${i}`, `S${i}`, [`V${i}`])
  d.cable('K', { gauge: { awg: 18 }, stops, cores: [...common, ...Array.from({ length: n }, (_, i) => `c${i + 1}`)] })
  d.join('A', ['A:C', ...common.map((c) => `K.${c}>`)])
  for (let i = 1; i <= n; i++) {
    d.join('A', [`A:${i}`, `K.c${i}>`]).join(`B${i}`, [`K.c${i}<`, `V${i}.a`])
    d.join(`B${i}`, [...common.map((c) => `K.${c}<`), `V${i}.b`, ...(i < n ? common.map((c) => `K.${c}>`) : [])])
  }
  return tweak(d).site()
}
const sweep = (site: Site, values: Record<string, number | 'OL'>, meter: Meter = COMMON_METER) => {
  const scene = sceneOf(site)
  const observations = Object.entries(values).map(([from, x]) => ({
    test: test_(...(from.split('-') as [string, string?])),
    value: read(x),
    meter,
  }))
  const { judged, joint } = judgeSweep(scene, observations)
  return { codes: judged.map((j) => j.verdict.code), judged, joint, told: tell(scene, A, observations, joint) }
}
const expected = (site: Site, from: string) => {
  const e = predict(sceneOf(site), test_(from), COMMON_METER)
  if (e.kind !== 'ohms') throw new Error(e.kind)
  return e
}
const soundRow = row(6)
const sound = (site: Site, change: Record<string, number | 'OL'> = {}) => ({
  ...Object.fromEntries(
    [1, 2, 3, 4, 5, 6].map((n) => [String(n), Math.round(expected(site, String(n)).expected_ohm * 10) / 10]),
  ),
  ...change,
})

test('the band is the root of the squares of coil, meter, wire and joints, and metric wire reaches to the standard’s maximum', () => {
  const e = expected(soundRow, '6')
  const wire = 600 * 0.0209478
  expect(e.expected_ohm).toBeCloseTo(33 + wire + 7 * 0.03, 3)
  const apart = Math.hypot(33 * 0.08, e.expected_ohm * 0.01 + 0.2, wire * 0.05, 0.02 * Math.sqrt(7))
  expect(e.high_ohm - e.expected_ohm).toBeCloseTo(apart, 3)
  expect(e.expected_ohm - e.low_ohm).toBeCloseTo(apart, 3)
  expect(e.terms.reduce((sum, t) => sum + t.ohm, 0)).toBeCloseTo(e.expected_ohm, 9)
  const metric = row(1, ['white'], (d) => d.setting('market', 'metric'))
  const cable = Object.values(metric.cables)[0]!
  const site = {
    ...metric,
    cables: { K: { ...cable, gauge: { value: { area_mm2: 1.5 }, how: 'seen', on: null } } },
  } as unknown as Site
  const m = expected(site, '1')
  expect(m.deviations.wire.below).toBeCloseTo(((100 * 0.017241) / 1.5) * 0.05, 6)
  expect(m.deviations.wire.above).toBeCloseTo(100 * (0.0121 * 1.05 - 0.017241 / 1.5), 6)
})

test('what the record does not know widens the band and never fails', () => {
  const loose = row(2, ['white'], (d) =>
    d.cable('X', {
      gauge: null,
      stops: [
        ['A', 0],
        ['B1', null],
      ],
      cores: ['red', 'blue'],
    }),
  )
  expect(predict(sceneOf(loose), test_('MV'), COMMON_METER)).toMatchObject({ kind: 'bounds' })
  const unknown = {
    ...soundRow,
    devices: { ...soundRow.devices, V3: { ...(soundRow.devices['V3' as never] as object), coilKind: null } },
  } as unknown as Site
  const { below, above } = expected(unknown, '3').deviations.unknown
  expect([below, above]).toEqual([expect.closeTo(13, 9), expect.closeTo(27, 9)])
  const cable = Object.values(soundRow.cables)[0]!
  const middle = {
    ...soundRow,
    cables: { K: { ...cable, stops: cable.stops.map((s, i) => (i === 2 ? { ...s, at_m: null } : s)) } },
  } as unknown as Site
  // The box's own distance is unknown, the lead beyond it passes uncut: only the common's cuts there make doubt, and
  // not in the sum.
  expect(expected(middle, '6').expected_ohm).toBeCloseTo(expected(soundRow, '6').expected_ohm, 9)
})

test('verdicts of single readings', () => {
  const loop1 = 2 * 50 * 0.0209478
  const { codes } = sweep(soundRow, sound(soundRow, { 2: 60, 3: 25.5, 4: 'OL', 5: 3, 1: loop1 }))
  expect(codes).toEqual(['short', 'high', 'low', 'open', 'short', 'fits'])
  expect(sweep(soundRow, { 1: loop1 }).judged[0]!.verdict).toMatchObject({ code: 'short', atCoil: true })
  expect(sweep(soundRow, { 2: 4.2 + 16.5 }).codes).toEqual(['two_coils'])
  expect(sweep(soundRow, { 5: 25 }).judged[0]!.rule).toEqual({ passes: true, passesFault: true })
})

test('the meter’s own leads come off, and a bare 1 is never one ohm', () => {
  const meter = { ...COMMON_METER, leadZero_ohm: 0.6, openMark: '1' as const, highest_ohm: 200 }
  expect(
    judge(sceneOf(soundRow), test_('1'), read(expected(soundRow, '1').expected_ohm + 0.6), meter).verdict.code,
  ).toBe('fits')
  expect(readText('1', meter)).toEqual({ ok: true, value: { kind: 'open' } })
  expect(readText('1.0', meter)).toEqual({ ok: true, value: { kind: 'ohm', ohm: 1 } })
  expect(readText('1', COMMON_METER)).toEqual({ ok: false, code: 'mark_or_figure' })
  expect([readText('1.2k', COMMON_METER), readText('0,47M', COMMON_METER)]).toEqual([
    { ok: true, value: read(1200) },
    { ok: true, value: read(470000) },
  ])
  for (const nonsense of ['3m', '1,234', '12 34', '1e3', '-4', '..', 'NaN', '0x10'])
    expect(readText(nonsense, COMMON_METER)).toEqual({ ok: false, code: 'not_a_figure' })
  expect(readText('500', meter)).toEqual({ ok: false, code: 'over_range' })
})

describe('the sweep taken together', () => {
  test('open beyond one point of the common: that stretch and the joints at both its ends, nothing else', () => {
    const { told, joint } = sweep(soundRow, sound(soundRow, { 4: 'OL', 5: 'OL', 6: 'OL' }))
    expect(told).toHaveLength(1)
    expect(told[0]).toMatchObject({
      between: ['B3', 'B4'],
      says: { code: 'open_common_between', params: { tags: '4–6', from: 'B3', to: 'B4' } },
      next: { code: 'open_near_box' },
    })
    const { suspects } = told[0]!.conclusion as unknown as { suspects: { kind: string; place?: string }[] }
    expect(suspects.map((s) => `${s.kind} ${s.place ?? ''}`).sort()).toEqual(['joint B3', 'joint B4', 'stretch '])
    expect(joint.severalOrWrong).toBe(false)
  })
  test('one station open: its own lead, coil and joints; all open: before the first box', () => {
    expect(sweep(soundRow, sound(soundRow, { 2: 'OL' })).told[0]).toMatchObject({
      says: { code: 'open_thread' },
      terminals: ['2'],
    })
    const all = sweep(soundRow, { 1: 'OL', 2: 'OL', 3: 'OL', 4: 'OL', 5: 'OL', 6: 'OL' })
    expect(all.told[0]).toMatchObject({ between: ['A', 'B1'], says: { code: 'open_common_first' } })
  })
  test('a short beyond a supposed cut speaks against the cut: one station open beside one short is its own thread', () => {
    const { told } = sweep(soundRow, { 1: sound(soundRow)[1]!, 2: 'OL', 3: 5.5 })
    expect(told.map((d) => [d.says.code, d.terminals])).toEqual([
      ['open_thread', ['2']],
      ['short', ['3']],
    ])
  })
  test('a dead set that is not contiguous needs more than one fault, or a wrong record, and says so', () => {
    const { told, joint } = sweep(soundRow, sound(soundRow, { 2: 'OL', 5: 'OL', 6: 'OL' }))
    expect(joint.severalOrWrong).toBe(true)
    expect(told.map((d) => d.terminals)).toEqual([['5', '6'], ['2']])
  })
  test('two cores in parallel: one cut is no open; all dead beyond a box is the cable', () => {
    const twin = row(6, ['white', 'black'])
    const cut = sceneWith(sceneOf(twin), [
      { kind: 'open', elements: [sceneOf(twin).network.elements.findIndex((e) => e.link?.id === 'K/white@B2')] },
    ])
    expect(predict(cut, test_('6'), COMMON_METER)).toMatchObject({ kind: 'ohms' })
    const { told } = sweep(twin, sound(twin, { 4: 'OL', 5: 'OL', 6: 'OL' }))
    expect(told[0]!.between).toEqual(['B3', 'B4'])
  })
  test('a split common: the half on the cut core is open, and the cut is put on that core', () => {
    const split = new Draft('split').place('A', 'cabinet').controller('A', 'A', 4).coilKind('k', 33)
    const stops: [string, number][] = [['A', 0], ...[1, 2, 3, 4].map((i): [string, number] => [`B${i}`, 50 * i])]
    for (let i = 1; i <= 4; i++)
      split
        .place(`B${i}`)
        .valve(`V${i}`, `B${i}`, 'k')
        .station(`A:${i}`, `S${i}`, [`V${i}`])
    split
      .cable('K', { gauge: { awg: 18 }, stops, cores: ['white', 'black', 'c1', 'c2', 'c3', 'c4'] })
      .join('A', ['A:C', 'K.white>', 'K.black>'])
    for (let i = 1; i <= 4; i++) split.join('A', [`A:${i}`, `K.c${i}>`]).join(`B${i}`, [`K.c${i}<`, `V${i}.a`])
    for (const [core, [near, far]] of [
      ['white', [1, 3]],
      ['black', [2, 4]],
    ] as const)
      split.join(`B${near}`, [`K.${core}<`, `V${near}.b`, `K.${core}>`]).join(`B${far}`, [`K.${core}<`, `V${far}.b`])
    const site = split.site()
    const reads = (n: number) => expected(site, String(n)).expected_ohm
    const { told } = sweep(site, { 1: reads(1), 2: 'OL', 3: reads(3), 4: 'OL' })
    expect(told).toMatchObject([{ says: { code: 'open_common_first' }, terminals: ['2', '4'] }])
    expect(
      (told[0]!.conclusion as unknown as { suspects: { kind: string; core?: string }[] }).suspects
        .filter((s) => s.kind === 'stretch')
        .every((s) => s.core === 'black'),
    ).toBe(true)
  })
  test('a looped common: one cut shows in no reading as open, and raises those on the long way round by what the wire says', () => {
    const loop = row(4, ['white'], (d) =>
      d
        .cable('R', {
          gauge: { awg: 18 },
          stops: [
            ['A', 0],
            ['B4', 220],
          ],
          cores: ['back'],
        })
        .core('R', 'back', {}),
    )
    const joint = Object.entries(loop.splices).find(
      ([, s]) => s.place === 'B4' && s.ends.some((e) => e.kind === 'core' && e.core === 'white'),
    )!
    const home = Object.entries(loop.splices).find(([, s]) =>
      s.ends.some((e) => e.kind === 'terminal' && e.terminal === 'C'),
    )!
    const more = (splice: (typeof joint)[1], stop: string, side: 'leaves' | 'arrives') => ({
      ...splice,
      ends: [...splice.ends, { kind: 'core', cable: 'R', core: 'back', stop, side }],
    })
    const ring = {
      ...loop,
      splices: {
        ...loop.splices,
        [joint[0]]: more(joint[1], 'B4', 'arrives'),
        [home[0]]: more(home[1], 'A', 'leaves'),
      },
    } as unknown as Site
    const scene = sceneOf(ring)
    const cut = sceneWith(scene, [
      { kind: 'open', elements: [scene.network.elements.findIndex((e) => e.link?.id === 'K/white@B2')] },
    ])
    const after = [1, 2, 3, 4]
      .map((n) => predict(cut, test_(String(n)), COMMON_METER))
      .map((e) => (e.kind === 'ohms' ? e.expected_ohm : NaN))
    const before = [1, 2, 3, 4].map((n) => expected(ring, String(n)).expected_ohm)
    expect(after.every((ohm, i) => ohm > before[i]!)).toBe(true)
    expect(after[2]! - before[2]!).toBeGreaterThan(0.5)
    // Two cuts leave what lies between without a way home: no single break explains it, and that is said.
    const { joint: both } = sweep(ring, { 1: before[0]!, 2: 'OL', 3: 'OL', 4: before[3]! })
    expect(both.severalOrWrong).toBe(true)
  })
  test('a poor joint on the common raises every station beyond it', () => {
    const raised = Object.fromEntries([3, 4, 5, 6].map((n) => [n, expected(soundRow, String(n)).expected_ohm + 12]))
    const { told } = sweep(soundRow, sound(soundRow, raised))
    expect(told[0]).toMatchObject({ between: ['B2', 'B3'], says: { code: 'resistive_common_between' } })
    expect((told[0]!.conclusion as { excess_ohm: number }).excess_ohm).toBeCloseTo(12, 1)
  })
  test('leads that touch, a lead on the wrong terminal, leads exchanged', () => {
    const [one, six] = ['1', '6'].map((n) => expected(soundRow, n).expected_ohm) as [number, number]
    const together = predict(
      sceneWith(sceneOf(soundRow), [
        {
          kind: 'bridge',
          a: sceneOf(soundRow).network.nodeOf.get(sceneOf(soundRow).network.wiring.pointOf(test_('1').from))!,
          b: sceneOf(soundRow).network.nodeOf.get(sceneOf(soundRow).network.wiring.pointOf(test_('6').from))!,
          ohm: 0,
        },
      ]),
      test_('1'),
      COMMON_METER,
    )
    const ohm = (together as { expected_ohm: number }).expected_ohm
    expect(sweep(soundRow, sound(soundRow, { 1: ohm, 6: ohm })).told[0]!.says).toMatchObject({
      code: 'leads_joined',
      params: { one: '1', other: '6' },
    })
    expect(sweep(soundRow, sound(soundRow, { 1: ohm, 6: 'OL' })).told[0]!.says).toMatchObject({
      code: 'lead_moved',
      params: { one: '1', other: '6' },
    })
    expect(sweep(soundRow, sound(soundRow, { 1: six, 6: one })).told[0]!.says).toMatchObject({ code: 'swapped' })
  })
  test('a lead seen open from C and from its neighbour is told as that lead, not as the common', () => {
    const { told } = sweep(soundRow, { ...sound(soundRow), 3: 'OL', '3-4': 'OL', '1-2': 70.3 })
    expect(told).toMatchObject([
      {
        says: { code: 'open_thread', params: { tags: '3' } },
        terminals: ['3'],
        next: { code: 'read_coil_at_box', params: { to: 'B3' } },
      },
    ])
  })
  test('a reading from station to station is nobody’s lead: it takes part in no exchange of leads', () => {
    const values = { 1: sound(soundRow)[1]!, 2: sound(soundRow)[2]!, '1-2': 90, '3-4': 30 }
    const { joint } = sweep(soundRow, values)
    expect(
      joint.conclusions
        .flatMap((c) => [c.kind, ...c.or.map((o) => o.kind)])
        .filter((k) => ['swapped', 'leads_joined', 'lead_moved'].includes(k)),
    ).toEqual([])
  })
  test('behind a sequencer nothing is read, and nothing is concluded from it', () => {
    const site = row(3, ['white'], (d) =>
      d
        .device('Q', 'sequencer', 'B1')
        .cable('L', {
          gauge: { awg: 18 },
          stops: [
            ['A', 0],
            ['B1', 50],
          ],
          cores: ['t'],
        })
        .join('A', ['A:MV', 'L.t>'])
        .join('B1', ['L.t<', 'Q.in']),
    )
    const { codes, joint } = sweep(site, { 1: expected(site, '1').expected_ohm, MV: 'OL' })
    expect(codes).toEqual(['fits', 'not_readable'])
    expect(joint.conclusions).toEqual([])
  })
  test('a part on record as open is expected open', () => {
    const site = row(2, ['white'], (d) => d.core('K', 'c2', { conditions: { B1: { state: 'open' } } }))
    expect(predict(sceneOf(site, climateOf(site)), test_('2'), COMMON_METER)).toEqual({ kind: 'open' })
    expect(sweep(site, { 2: 'OL' }).judged[0]!.verdict).toMatchObject({ code: 'open', onRecord: true })
    expect(sweep(site, { 2: 34 }).codes).toEqual(['unexpected'])
  })
})

test('terminals as people list them', () => {
  expect(tagsText(['10', '9', '11', 'MV', '2', '1', '12'])).toBe('MV, 1, 2, 9–12')
})
