import { demoProperty } from '../../demo/quarry-lake'
import { Draft, type Site } from '../site'
import {
  answerOf,
  climateOf,
  closings,
  conditionsFor,
  engineOf,
  poweredOf,
  runningOf,
  type Answer,
  type Conditions,
  type Running,
  type TerminalAt,
  type Told,
} from './index'

const { site } = demoProperty()
const at = (written: string): TerminalAt => {
  const [controller, terminal] = written.split(':')
  return { controller, terminal } as unknown as TerminalAt
}
const running = (of: Site, on: string[], told: [string, Told][] = []): Running => {
  const outcome = runningOf(
    of,
    on.map(at),
    told.map(([t, as]) => ({ ...at(t), as })),
  )
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.refusals))
  return outcome.value
}
const faces = (r: Running) => Object.fromEntries(r.faces)
const live = (r: Running) => r.live.map((t) => `${t.controller}:${t.terminal}`)

function answer(of: Site, on: string[], told: [string, Told][] = [], more: Partial<Conditions> = {}): Answer {
  const r = running(of, on, told)
  const powered = poweredOf(
    of,
    conditionsFor(r, {
      climate: climateOf(of, 20),
      frequency_Hz: 60,
      phase: 'optimistic',
      mains_ratio: 1,
      wire: 'nominal',
      ...more,
    }),
  )
  const engine = engineOf(powered)
  return answerOf(engine, engine.solve(closings(powered, r.live)))
}
const volts = (a: Answer) => Object.fromEntries(a.coils.map((c) => [c.device, Math.round(c.volt_V * 100) / 100]))

describe('what runs', () => {
  test('the last named starts, the others hold; master valve and relay come with their stations, once', () => {
    const r = running(site, ['A:3', 'A:18'])
    expect(live(r)).toEqual(['A:3', 'A:18', 'A:MV'])
    expect(faces(r)).toEqual({ V3: 'holding', V18: 'inrush', MV: 'inrush', PR: 'inrush' })
  })
  test('a controller that brings its master in first leaves it holding; a word of one’s own overrides', () => {
    const first = {
      ...site,
      controllers: { ...site.controllers, A: { ...(site.controllers['A' as never] as object), masterFirst: true } },
    } as unknown as Site
    expect(faces(running(first, ['A:3']))).toEqual({ V3: 'inrush', MV: 'holding', PR: 'holding' })
    expect(live(running(site, ['A:3'], [['A:MV', 'off']]))).toEqual(['A:3'])
    expect(
      faces(
        running(
          site,
          ['A:3', 'A:4'],
          [
            ['A:3', 'inrush'],
            ['A:9', 'holding'],
          ],
        ),
      ),
    ).toMatchObject({ V3: 'inrush', V4: 'inrush', V9: 'holding' })
  })
  test('a station of another controller without a master valve brings nothing; a common is no output', () => {
    expect(live(running(site, ['S:1']))).toEqual(['S:1'])
    const refused = runningOf(site, [at('A:C')])
    expect(refused.ok ? '' : refused.refusals[0]!.code).toBe('common_is_no_output')
  })
})

describe('what comes of it', () => {
  test('currents add up: the transformer gives what the coils take, the common carries the sum', () => {
    const a = answer(site, ['A:1'], [], { phase: 'safe' })
    const [supply] = a.supplies
    expect(supply!.current_A).toBeCloseTo(
      a.coils.reduce((sum, c) => sum + c.current_A, 0),
      6,
    )
    expect(supply!.load_VA).toBeCloseTo(supply!.current_A * supply!.terminal_V, 9)
    const common = a.conductors.find(
      (c) => c.link.cable === ('K1' as never) && c.link.core === ('white' as never) && c.link.from === 0,
    )!
    const station = a.coils.find((c) => c.device === ('V1' as never))!
    const master = a.coils.find((c) => c.device === ('MV' as never))!
    expect(common.current_A).toBeCloseTo(station.current_A + master.current_A, 6)
    expect(a.supplies[1]).toMatchObject({ current_A: 0, terminal_V: expect.closeTo(27, 9) })
  })
  test('low mains scale every volt; the safe phase is never kinder; direct current sees the winding alone', () => {
    const [full, low, safe, dc] = [
      answer(site, ['A:12']),
      answer(site, ['A:12'], [], { mains_ratio: 0.9 }),
      answer(site, ['A:12'], [], { phase: 'safe' }),
      answer(site, ['A:12'], [], { frequency_Hz: 0 }),
    ]
    for (const c of full.coils) {
      const same = (a: Answer) => a.coils.find((o) => o.device === c.device)!
      expect(same(low).volt_V).toBeCloseTo(c.volt_V * 0.9, 9)
      expect(same(safe).volt_V).toBeLessThan(c.volt_V)
      expect(same(dc).current_A).toBeGreaterThan(c.current_A)
    }
  })
  test('a terminal live throughout is the same as one switched on, in volts and in what the transformer gives', () => {
    const switched = answer(site, ['A:7'])
    const r = running(site, ['A:7'])
    const powered = poweredOf(site, {
      ...conditionsFor(r, {
        climate: climateOf(site, 20),
        frequency_Hz: 60,
        phase: 'optimistic',
        mains_ratio: 1,
        wire: 'nominal',
      }),
      live: [at('A:MV')],
    })
    const engine = engineOf(powered)
    const throughout = answerOf(engine, engine.solve(closings(powered, [at('A:7')])))
    expect(volts(throughout)).toEqual(volts(switched))
    expect(throughout.supplies[0]!.load_VA).toBeCloseTo(switched.supplies[0]!.load_VA, 6)
  })
  test('a sequencer runs the coil whose turn it is, and only that', () => {
    expect(Object.keys(volts(answer(site, ['S:5'])))).toEqual(['W5'])
    const second = running(site, ['S:5'])
    const powered = poweredOf(site, {
      ...conditionsFor(second, {
        climate: climateOf(site),
        frequency_Hz: 60,
        phase: 'safe',
        mains_ratio: 1,
        wire: 'nominal',
      }),
      turns: new Map([['Q1' as never, 2]]),
    })
    const engine = engineOf(powered)
    expect(Object.keys(volts(answerOf(engine, engine.solve(closings(powered, second.live)))))).toEqual(['W6'])
  })

  const plain = (more: (d: Draft) => Draft = (d) => d) =>
    more(
      new Draft('plain')
        .setting('soundSplice_ohm', 0.03)
        .place('A', 'cabinet')
        .place('B')
        .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
        .controller('A', 'A', 2, { transformer: { rating_VA: 40 } })
        .cable('K', {
          gauge: { awg: 18 },
          stops: [
            ['A', 0],
            ['B', 100],
          ],
          cores: ['white', 'red', 'blue'],
        })
        .valve('V1', 'B', 'k')
        .valve('V2', 'B', 'k')
        .station('A:1', 'One', ['V1'])
        .station('A:2', 'Two', ['V2'])
        .join('A', ['A:C', 'K.white>']),
    ).join('B', ['K.white<', 'V1.b', 'V2.b'])
  const straight = plain((d) =>
    d
      .join('A', ['A:1', 'K.red>'])
      .join('A', ['A:2', 'K.blue>'])
      .join('B', ['K.red<', 'V1.a'])
      .join('B', ['K.blue<', 'V2.a']),
  ).site()

  test('intent plays no part: swapped leads run the other valve, doubled leads run both, a cut lead none', () => {
    const swapped = plain((d) =>
      d
        .join('A', ['A:1', 'K.red>'])
        .join('A', ['A:2', 'K.blue>'])
        .join('B', ['K.blue<', 'V1.a'])
        .join('B', ['K.red<', 'V2.a']),
    ).site()
    const doubled = plain((d) =>
      d.join('A', ['A:1', 'K.red>', 'K.blue>']).join('B', ['K.red<', 'V1.a']).join('B', ['K.blue<', 'V2.a']),
    ).site()
    const cut = plain((d) =>
      d
        .core('K', 'red', { condition: { state: 'open' } })
        .join('A', ['A:1', 'K.red>'])
        .join('A', ['A:2', 'K.blue>'])
        .join('B', ['K.red<', 'V1.a'])
        .join('B', ['K.blue<', 'V2.a']),
    ).site()
    expect([straight, swapped, doubled, cut].map((s) => Object.keys(volts(answer(s, ['A:1']))))).toEqual([
      ['V1'],
      ['V2'],
      ['V1', 'V2'],
      [],
    ])
    expect(volts(answer(doubled, ['A:1'])).V1).toBeLessThan(volts(answer(straight, ['A:1'])).V1!)
  })
  test('warmer runs lose more, a joint shows its own loss, and what a face asks for is told apart', () => {
    const warm = {
      ...straight,
      cables: { ...straight.cables, K: { ...(straight.cables['K' as never] as object), warmer_K: 30 } },
    } as unknown as Site
    expect(volts(answer(warm, ['A:1'])).V1).toBeLessThan(volts(answer(straight, ['A:1'])).V1!)
    const { joints, coils } = answer(straight, ['A:1'])
    expect(joints.find((j) => j.volt_V > 0.001)!.volt_V).toBeCloseTo(coils[0]!.current_A * 0.03, 4)
    expect(answer(straight, ['A:1'], [['A:1', 'holding']]).coils[0]).toMatchObject({
      face: 'holding',
      minimum_V: 15,
      enough: true,
    })
    expect(answer(straight, ['A:1'], [], { mains_ratio: 0.7 }).coils[0]).toMatchObject({
      face: 'inrush',
      minimum_V: 19,
      enough: false,
    })
  })
})
