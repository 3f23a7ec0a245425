import { poweredCase } from '../../tests/random-powered'
import {
  answerOf,
  climateOf,
  closings,
  coilImpedance,
  conditionsFor,
  engineOf,
  LEAST_ohm,
  partlyShorted,
  poweredOf,
  runningOf,
  sourceResistance_ohm,
  type TerminalAt,
  type Told,
  type Edit,
  type Powered,
} from './index'
import { size, solveDense, type Complex } from './complex'
import { Draft, type CoilKind, type Site } from '../site'

/**
 * The plain way: every element written into one matrix with the edits made beforehand, a hair of leakage, dense
 * Gauss.
 */
function plainVolts(powered: Powered, edits: readonly Edit[]): Complex[] {
  const parts = powered.parts.map((p) => ({ a: p.a, b: p.b, z: p.z as Complex | null }))
  const add = (a: number, b: number, z: Complex) => parts.push({ a, b, z })
  let count = powered.nodeCount
  const split = (element: number, along: number): number => {
    const { a, b, z } = parts[element]!
    parts[element]!.z = null
    add(a, count, { re: Math.max(LEAST_ohm, z!.re * along), im: z!.im * along })
    add(count, b, { re: Math.max(LEAST_ohm, z!.re * (1 - along)), im: z!.im * (1 - along) })
    return count++
  }
  for (const e of edits) {
    if (e.kind === 'close') add(e.node, e.hot, { re: LEAST_ohm, im: 0 })
    else if (e.kind === 'draw') continue
    else if (e.kind === 'bridge') add(e.a, e.b, { re: Math.max(LEAST_ohm, e.ohm), im: 0 })
    else if (e.kind === 'leak') add(e.node, powered.earth, { re: Math.max(LEAST_ohm, e.ohm), im: 0 })
    else if (e.kind === 'touch') {
      const at = split(e.first, e.firstAlong)
      add(at, e.second === null ? powered.earth : split(e.second, e.secondAlong), {
        re: Math.max(LEAST_ohm, e.ohm),
        im: 0,
      })
    } else {
      const z = parts[e.element]!.z
      if (z)
        parts[e.element]!.z =
          e.kind === 'open'
            ? null
            : e.kind === 'series'
              ? { re: z.re + e.ohm, im: z.im }
              : e.kind === 'coil_part'
                ? partlyShorted(z, e.fraction)
                : e.kind === 'element'
                  ? e.z
                  : { re: LEAST_ohm, im: 0 }
    }
  }
  const rows = Array.from({ length: count }, () => Array.from({ length: count }, () => ({ re: 0, im: 0 })))
  const right = Array.from({ length: count }, () => ({ re: 0, im: 0 }))
  for (const { a, b, z } of parts) {
    if (!z || a === b) continue
    const square = z.re ** 2 + z.im ** 2
    for (const [i, j, s] of [
      [a, a, 1],
      [b, b, 1],
      [a, b, -1],
      [b, a, -1],
    ] as const) {
      rows[i]![j]!.re += (s * z.re) / square
      rows[i]![j]!.im -= (s * z.im) / square
    }
  }
  for (let n = 0; n < count; n++) rows[n]![n]!.re += 1e-11
  for (const s of powered.sources) {
    right[s.hot]!.re += s.open_V / s.source_ohm
    right[s.common]!.re -= s.open_V / s.source_ohm
  }
  for (const { a, b, amps } of [...powered.draws, ...edits.filter((e) => e.kind === 'draw')]) {
    right[a]!.re -= amps.re
    right[b]!.re += amps.re
  }
  rows[powered.sources[0]!.common]![powered.sources[0]!.common]!.re += 1e9
  return solveDense(rows, right)
}

test('every node of random properties with faults, by low rank, agrees with one dense matrix with the faults in it', () => {
  let [worst, floating, cases] = [0, 0, 0]
  for (let seed = 1000; seed < 1120; seed++) {
    const { engine, edits, title } = poweredCase(seed)
    const solution = engine.solve(edits)
    const plain = plainVolts(engine.powered, edits)
    for (let node = 0; node < engine.powered.nodeCount; node++) {
      if (solution.floating(node)) {
        floating++
        continue
      }
      const ours = solution.volts(node)
      const off = size({ re: ours.re - plain[node]!.re, im: ours.im - plain[node]!.im })
      if (off > 3e-5)
        throw new Error(
          `${title}: ${engine.powered.names[node]} is ${JSON.stringify(ours)}, plainly ${JSON.stringify(plain[node])}`,
        )
      worst = Math.max(worst, off)
    }
    cases++
  }
  expect([cases, floating > 500]).toEqual([120, true])
  expect(worst).toBeLessThan(3e-5)
})

test('opening what nothing else bridges is told by structure: what is beyond floats, what is before keeps its volts', () => {
  const site = new Draft('one')
    .place('A', 'cabinet')
    .place('B')
    .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .controller('A', 'A', 1, { transformer: { rating_VA: 30 } })
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 100],
      ],
      cores: ['white', 'red'],
    })
    .valve('V', 'B', 'k')
    .join('A', ['A:1', 'K.red>'])
    .join('A', ['A:C', 'K.white>'])
    .join('B', ['K.red<', 'V.a'])
    .join('B', ['K.white<', 'V.b'])
    .station('A:1', 'One', ['V'])
    .site()
  const powered = poweredOf(site, {
    climate: climateOf(site),
    frequency_Hz: 60,
    phase: 'safe',
    mains_ratio: 1,
    wire: 'nominal',
    faces: new Map(),
    turns: new Map(),
  })
  const engine = engineOf(powered)
  const element = (id: string) => powered.parts.findIndex((p) => 'id' in p.of && p.of.id === id)
  const node = (name: string) => powered.names.indexOf(name)
  const close: Edit = { kind: 'close', node: node('terminal_a_1'), hot: powered.sources[0]!.hot }
  const cut: Edit = { kind: 'open', element: element('K/red@A') }
  const off = engine.solve([cut])
  expect([off.floating(node('terminal_a_1')), off.floating(node('v_a')), off.floating(node('k_red_b_in'))]).toEqual([
    true,
    false,
    false,
  ])
  const on = engine.solve([close, cut])
  expect([
    on.floating(node('terminal_a_1')),
    size(on.volts(node('terminal_a_1'))),
    size(on.volts(node('v_a'))),
  ]).toEqual([false, expect.closeTo(27, 4), expect.closeTo(0, 6)])
  const mended = engine.solve([close, cut, { kind: 'bridge', a: node('terminal_a_1'), b: node('k_red_b_in'), ohm: 0 }])
  expect(size(mended.volts(node('v_a')))).toBeGreaterThan(24)
  const both = engine.solve([close, cut, { kind: 'open', element: element('K/white@A') }])
  expect([both.floating(node('v_a')), both.floating(node('v_b'))]).toEqual([true, true])
})

describe('worked cases, at 60 Hz, the coil’s real part its winding’s', () => {
  const volts = (site: Site, on: string[], told: [string, Told][] = []) => {
    const at = (tag: string) => ({ controller: 'A', terminal: tag }) as unknown as TerminalAt
    const running = runningOf(
      site,
      on.map(at),
      told.map(([t, as]) => ({ ...at(t), as })),
    )
    if (!running.ok) throw new Error(JSON.stringify(running.refusals))
    const powered = poweredOf(
      site,
      conditionsFor(running.value, {
        climate: climateOf(site),
        frequency_Hz: 60,
        phase: 'optimistic',
        mains_ratio: 1,
        wire: 'nominal',
      }),
    )
    const engine = engineOf(powered)
    return Object.fromEntries(
      answerOf(engine, engine.solve(closings(powered, running.value.live))).coils.map((c) => [
        c.device,
        [c.volt_V, c.current_A],
      ]),
    )
  }
  const draft = () =>
    new Draft('case')
      .setting('soundSplice_ohm', 0)
      .place('A', 'cabinet')
      .place('B')
      .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
  test('one station: 180 m of 18 AWG out, 14 AWG home', () => {
    const site = draft()
      .controller('A', 'A', 1, { transformer: { rating_VA: 30 } })
      .cable('K', {
        gauge: { awg: 18 },
        stops: [
          ['A', 0],
          ['B', 180],
        ],
        cores: ['red', 'white'],
      })
      .core('K', 'white', { gauge: { value: { awg: 14 }, how: 'seen' } })
      .valve('V', 'B', 'k')
      .station('A:1', 'One', ['V'])
      .join('A', ['A:1', 'K.red>'])
      .join('A', ['A:C', 'K.white>'])
      .join('B', ['K.red<', 'V.a'])
      .join('B', ['K.white<', 'V.b'])
      .site()
    expect(volts(site, ['1'])).toEqual({ V: [expect.closeTo(25.1038, 4), expect.closeTo(0.4184, 4)] })
    expect(volts(site, ['1'], [['1', 'holding']])).toEqual({
      V: [expect.closeTo(26.3263, 4), expect.closeTo(0.25229, 5)],
    })
  })
  test('a master valve in the first box, brought in before the station', () => {
    const site = draft()
      .place('D')
      .controller('A', 'A', 1, { transformer: { rating_VA: 30 }, masterFirst: true })
      .cable('K', {
        gauge: { awg: 14 },
        kind: 'single',
        stops: [
          ['A', 0],
          ['B', 30],
          ['D', 180],
        ],
        cores: ['white'],
      })
      .cable('M', {
        gauge: { awg: 18 },
        kind: 'single',
        stops: [
          ['A', 0],
          ['B', 30],
        ],
        cores: ['grey'],
      })
      .cable('L', {
        gauge: { awg: 18 },
        kind: 'single',
        stops: [
          ['A', 0],
          ['D', 180],
        ],
        cores: ['red'],
      })
      .valve('MV', 'B', 'k')
      .valve('V', 'D', 'k')
      .pointOfConnection('P', { name: 'Supply', masterValve: 'MV', terminal: { controller: 'A', terminal: 'MV' } })
      .station('A:1', 'One', ['V'], { pointOfConnection: 'P' })
      .join('A', ['A:C', 'K.white>'])
      .join('A', ['A:MV', 'M.grey>'])
      .join('A', ['A:1', 'L.red>'])
      .join('B', ['M.grey<', 'MV.a'])
      .join('B', ['K.white<', 'MV.b', 'K.white>'])
      .join('D', ['L.red<', 'V.a'])
      .join('D', ['K.white<', 'V.b'])
      .site()
    const both = volts(site, ['1'])
    expect([both.V![0], both.MV![0]]).toEqual([expect.closeTo(24.8807, 4), expect.closeTo(26.0319, 4)])
  })
})

describe('a coil’s faces', () => {
  const kind = {
    resistance_ohm: 33,
    rated_V: 24,
    rated_Hz: 60,
    inrush_A: 0.4,
    holding_A: 0.23,
    inrush_pf: null,
    holding_pf: null,
  } as CoilKind
  test('impedance, its phases, frequency, temperature and power factor', () => {
    expect(coilImpedance(kind, 'inrush', 'safe', 60, 20)).toEqual({ re: 60, im: 0 })
    expect(coilImpedance(kind, 'inrush', 'optimistic', 60, 20)).toEqual({
      re: 33,
      im: expect.closeTo(Math.sqrt(3600 - 33 ** 2), 9),
    })
    expect(coilImpedance(kind, 'holding', 'optimistic', 50, 20).im).toBeCloseTo(
      (Math.sqrt((24 / 0.23) ** 2 - 33 ** 2) * 50) / 60,
      9,
    )
    expect(coilImpedance(kind, 'inrush', 'safe', 0, 45).re).toBeCloseTo(33 * (1 + 0.00393 * 25), 9)
    expect(coilImpedance(kind, 'inrush', 'safe', 60, 45).re).toBeCloseTo(60 + 33 * 0.00393 * 25, 9)
    expect(coilImpedance({ ...kind, inrush_pf: 0.7 }, 'inrush', 'safe', 60, 20)).toEqual({
      re: expect.closeTo(42, 9),
      im: expect.closeTo(60 * Math.sqrt(1 - 0.49), 9),
    })
    expect(sourceResistance_ohm(27, 30)).toBeCloseTo(2.4, 12)
  })
  test('shorted turns: none and all are the ends, and a part draws more than the rest alone would', () => {
    const z = coilImpedance(kind, 'holding', 'optimistic', 60, 20)
    expect(partlyShorted(z, 0)).toEqual(z)
    const half = partlyShorted(z, 0.5)
    expect(half.re).toBeGreaterThan(z.re / 2)
    expect(half.im).toBeLessThan(z.im / 4)
    expect(partlyShorted({ re: 33, im: 0 }, 0.5)).toEqual({ re: 16.5, im: 0 })
  })
})
