import { climateOf, networkOf, solverOf } from '../circuit'
import { COMMON_METER, type OhmsTest } from '../record'
import { Draft, terminalEnd, type ControllerId, type Site, type TerminalId } from '../site'
import { judgeSweep, predict, sceneOf } from './index'

const A = 'A' as ControllerId
const cToStation = (n: string): OhmsTest => between(n, 'C')
const between = (from: string, to: string): OhmsTest => ({
  kind: 'ohms',
  from: terminalEnd(A, from as TerminalId),
  to: terminalEnd(A, to as TerminalId),
})
const ohm = (site: Site, test: OhmsTest, ground_C = 20, coil_C: number | null = null): number => {
  const e = predict(sceneOf(site, climateOf(site, ground_C, coil_C)), test, COMMON_METER)
  if (e.kind !== 'ohms') throw new Error(`expected ohms, got ${e.kind}`)
  return e.expected_ohm
}
/** Joints of no resistance, one coil of 33 Ω, singles: the conventions of the worked cases. */
const worked = (name: string) =>
  new Draft(name)
    .setting('soundSplice_ohm', 0)
    .setting('soundSpliceSpread_ohm', 0)
    .place('A', 'cabinet')
    .controller('A', 'A', 4)
    .coilKind('typical', 33)
const single = (awg: number, stops: [string, number][]) => ({
  gauge: { awg },
  kind: 'single' as const,
  stops,
  cores: ['w'],
})

const oneStation = (lead: { awg: number; m: number }, common: { awg: number; m: number }, coil = 33) =>
  worked('one')
    .coilKind('coil', coil)
    .place('B')
    .valve('V1', 'B', 'coil')
    .cable(
      'L',
      single(lead.awg, [
        ['A', 0],
        ['B', lead.m],
      ]),
    )
    .cable(
      'G',
      single(common.awg, [
        ['A', 0],
        ['B', common.m],
      ]),
    )
    .join('A', ['A:1', 'L.w>'])
    .join('A', ['A:C', 'G.w>'])
    .join('B', ['L.w<', 'V1.a'])
    .join('B', ['G.w<', 'V1.b'])
    .station('A:1', 'One', ['V1'])
    .site()

describe('worked cases, to five figures', () => {
  const case1 = oneStation({ awg: 18, m: 180 }, { awg: 14, m: 180 })

  test('1 and 6: lead and common of unlike gauge, cold and warm', () => {
    expect(ohm(case1, cToStation('1'))).toBeCloseTo(38.262, 4)
    expect(ohm(case1, cToStation('1'), 45, 20)).toBeCloseTo(38.7789, 4)
    expect(ohm(case1, cToStation('1'), 45)).toBeCloseTo(42.0212, 4)
  })

  test('3: a common cut upstream is seen from station to station, and placed before the first box', () => {
    const site = worked('cut')
      .place('BA')
      .place('BB')
      .valve('V1', 'BA', 'typical')
      .valve('V2', 'BB', 'typical')
      .cable(
        'L1',
        single(18, [
          ['A', 0],
          ['BA', 60],
        ]),
      )
      .cable(
        'L2',
        single(18, [
          ['A', 0],
          ['BB', 90],
        ]),
      )
      .cable(
        'G',
        single(14, [
          ['A', 0],
          ['BA', 60],
          ['BB', 90],
        ]),
      )
      .join('A', ['A:1', 'L1.w>'])
      .join('A', ['A:2', 'L2.w>'])
      .join('A', ['A:C', 'G.w>'])
      .join('BA', ['L1.w<', 'V1.a'])
      .join('BA', ['G.w<', 'V1.b', 'G.w>'])
      .join('BB', ['L2.w<', 'V2.a'])
      .join('BB', ['G.w<', 'V2.b'])
      .station('A:1', 'One', ['V1'])
      .station('A:2', 'Two', ['V2'])
      .site()
    expect(ohm(site, between('1', '2'))).toBeCloseTo(69.3907, 4)
    const open = { kind: 'open' } as const
    const { judged, joint } = judgeSweep(sceneOf(site), [
      { test: cToStation('1'), value: open, meter: COMMON_METER },
      { test: cToStation('2'), value: open, meter: COMMON_METER },
      { test: between('1', '2'), value: { kind: 'ohm', ohm: 69.4 }, meter: COMMON_METER },
    ])
    expect(judged.map((j) => j.verdict.code)).toEqual(['open', 'open', 'fits'])
    expect(joint.severalOrWrong).toBe(false)
    expect(joint.conclusions).toHaveLength(1)
    expect(joint.conclusions[0]).toMatchObject({ kind: 'open', where: 'common', explains: [0, 1] })
    expect((joint.conclusions[0] as unknown as { suspects: unknown[] }).suspects).toEqual(
      expect.arrayContaining([
        { kind: 'stretch', cable: 'G', core: 'w', from: 'A', to: 'BA' },
        expect.objectContaining({ kind: 'joint', place: 'BA' }),
      ]),
    )
  })

  test('4: a short in one cable tells its distance', () => {
    const site = worked('short')
      .place('B')
      .valve('V1', 'B', 'typical')
      .cable('K', {
        gauge: { awg: 18 },
        stops: [
          ['A', 0],
          ['B', 300],
        ],
        cores: ['red', 'white'],
      })
      .join('A', ['A:1', 'K.red>'])
      .join('A', ['A:C', 'K.white>'])
      .join('B', ['K.red<', 'V1.a'])
      .join('B', ['K.white<', 'V1.b'])
      .station('A:1', 'One', ['V1'])
      .site()
    const [verdict] = judgeSweep(sceneOf(site), [
      { test: cToStation('1'), value: { kind: 'ohm', ohm: 8.8819 }, meter: COMMON_METER },
    ]).judged
    expect(verdict!.verdict).toMatchObject({ code: 'short', atCoil: false })
    expect((verdict!.verdict as { distance_m: number }).distance_m).toBeCloseTo(212, 1)
  })

  test('5: the rule of thumb passes a coil half of whose turns are shorted; the band does not', () => {
    const sound = oneStation({ awg: 18, m: 240 }, { awg: 16, m: 240 })
    expect(ohm(sound, cToStation('1'))).toBeCloseTo(41.1893, 4)
    expect(ohm(oneStation({ awg: 18, m: 240 }, { awg: 16, m: 240 }, 18), cToStation('1'))).toBeCloseTo(26.1893, 4)
    const { judged, joint } = judgeSweep(sceneOf(sound), [
      { test: cToStation('1'), value: { kind: 'ohm', ohm: 26.1893 }, meter: COMMON_METER },
    ])
    expect(judged[0]).toMatchObject({ verdict: { code: 'low' }, rule: { passes: true, passesFault: true } })
    expect(joint.conclusions[0]).toMatchObject({ kind: 'coil_part' })
    expect((joint.conclusions[0] as { fraction: number }).fraction).toBeCloseTo(15 / 33, 3)
  })

  test('7: two cores in parallel', () => {
    const site = worked('parallel')
      .place('B')
      .cable('K', {
        gauge: { awg: 18 },
        stops: [
          ['A', 0],
          ['B', 100],
        ],
        cores: ['x', 'y'],
      })
      .cable(
        'P',
        single(18, [
          ['A', 0],
          ['B', 0],
        ]),
      )
      .join('A', ['A:C', 'K.x>', 'K.y>'])
      .join('B', ['K.x<', 'K.y<', 'P.w<'])
      .join('A', ['A:1', 'P.w>'])
      .site()
    expect(ohm(site, cToStation('1'))).toBeCloseTo(1.04739, 4)
    const network = networkOf(site, climateOf(site))
    expect(solverOf(network).connected(0, 1)).toBe(true)
  })
})
