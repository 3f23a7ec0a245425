import { manyPlanned } from '../../bench/many-plan'
import { demoProperty } from '../../demo/quarry-lake'
import { randomSite } from '../../tests/random-site'
import { brokenInvariants, checkSite, Draft, type Site } from '../site'
import { groupsOf, asIf, isPinned, marginsOf } from './index'
import { engineVerifier } from './engine-verifier'
import { worstPowered, type Start } from './load'
import { Model, type Violation } from './model'
import { waysOf } from './ways'

const withSizing = (site: Site, sizing: Partial<Site['settings']['sizing']>): Site => ({
  ...site,
  settings: { ...site.settings, sizing: { ...site.settings.sizing, ...sizing } },
})
const ohms = (model: Model) => Float64Array.from(model.powered.parts, (p) => p.z.re)

test('the worst moment of every coil is the worst of all moments, tried one by one with their drops written out', () => {
  for (const [together, seed] of [
    [1, 1],
    [2, 2],
    [3, 3],
  ] as const) {
    const site = withSizing(manyPlanned(9, seed), { together })
    const model = new Model(site)
    const { starts } = model.plants[0]!
    const { open_V, source_ohm } = model.source('A' as never)
    const wayOf = waysOf(model.powered)
    const volts = (found: Violation, starter: Start, others: readonly Start[]): number => {
      const on = [
        ...starter.starting.map((load) => ({ load, at: starter.at })),
        ...starter.masters.map((load) => ({ load, at: { controller: 'A', terminal: 'MV' } as never })),
        ...others.flatMap((o) => model.holding(o).map((load) => ({ load, at: o.at }))),
      ]
      const amps = new Map<number, number>()
      for (const { load, at } of on) {
        const way = wayOf((at as Start['at']).controller, (at as Start['at']).terminal, load.device)!
        way.elements.forEach((e, k) => amps.set(e, (amps.get(e) ?? 0) + way.shares[k]! * load.current_A))
      }
      let left = open_V - source_ohm * on.reduce((sum, { load }) => sum + load.current_A, 0)
      found.watch.way.elements.forEach((e, k) => {
        left -= found.watch.way.shares[k]! * amps.get(e)! * model.powered.parts[e]!.z.re
      })
      return left
    }
    const chosen = (from: readonly Start[], count: number): Start[][] =>
      count === 0 ? [[]] : from.flatMap((s, i) => chosen(from.slice(i + 1), count - 1).map((rest) => [s, ...rest]))
    for (const found of model.findAll(ohms(model))) {
      const { watch } = found
      let least = Infinity
      for (const starter of starts) {
        if (watch.part === 'starting' && starter !== watch.start) continue
        if (watch.part === 'holding' && starter === watch.start) continue
        for (const others of chosen(
          starts.filter((s) => s !== starter),
          together - 1,
        )) {
          if (watch.part === 'holding' && !others.includes(watch.start!)) continue
          least = Math.min(least, volts(found, starter, others))
        }
      }
      expect([seed, watch.load.device, watch.part, found.volt_V]).toEqual([
        seed,
        watch.load.device,
        watch.part,
        expect.closeTo(least, 9),
      ])
    }
  }
})

test('ways: every wired coil has one; in wiring without loops every part carries the whole ampere or a fair share of it', () => {
  for (let seed = 1; seed <= 30; seed++) {
    const { site, stations, looped } = randomSite(seed)
    const powered = worstPowered(site)
    const wayOf = waysOf(powered)
    for (const station of stations) {
      const way = wayOf('A' as never, station as never, `V${station}` as never)!
      const sizes = new Set([...way.shares].map((s) => Math.round(Math.abs(s) * 1e6) / 1e6))
      if (!looped) expect([seed, [...sizes].every((s) => s === 1 || s > 0.05)]).toEqual([seed, true])
      expect(way.elements.length).toBeGreaterThan(3)
    }
    expect(new Model(site).unwired).toEqual([])
  }
})

test('the engine is kinder than the model wherever the coils see less than their rated volts', () => {
  const site = demoProperty().site
  const model = new Model(site)
  const bear = engineVerifier(model, model.powered)
  for (const found of model.findAll(ohms(model))) {
    const coil = bear(found.moment).coils.find((c) => c.device === found.watch.load.device)!
    if (found.volt_V < 23)
      expect([found.watch.load.device, coil.volt_V >= found.volt_V]).toEqual([found.watch.load.device, true])
  }
})

test('what may be chosen: a jacket whole, a single from cut to cut, nothing that is settled; anew, everything', () => {
  const draft = (how: 'seen' | 'assumed') =>
    new Draft('groups')
      .place('A', 'cabinet')
      .place('B')
      .place('C')
      .coilKind('k', 33)
      .controller('A', 'A', 2)
      .cable('G', {
        gauge: null,
        kind: 'single',
        stops: [
          ['A', 0],
          ['B', 40],
          ['C', 100],
        ],
        cores: ['white'],
      })
      .cable('L', {
        gauge: null,
        kind: 'single',
        stops: [
          ['A', 0],
          ['B', 40],
          ['C', 100],
        ],
        cores: ['red'],
      })
      .cable(
        'J',
        {
          gauge: { awg: 18 },
          stops: [
            ['A', 0],
            ['C', 90],
          ],
          cores: ['a', 'b', 'c'],
        },
        { gauge: { value: { awg: 18 }, how } },
      )
      .core('J', 'a', { gauge: { value: { awg: 14 }, how: 'seen' } })
      .valve('V1', 'B', 'k')
      .valve('V2', 'C', 'k')
      .join('B', ['G.white<', 'V1.b', 'G.white>'])
      .join('C', ['G.white<', 'V2.b'])
      .join('C', ['L.red<', 'V2.a'])
      .join('A', ['A:C', 'G.white>'])
      .join('A', ['A:1', 'L.red>'])
      .site()
  const told = (site: Site, anew = false) =>
    groupsOf(worstPowered(site), anew).groups.map((g) => [g.cable, g.core, g.from, g.to, g.length_m])
  expect(told(draft('seen'))).toEqual([
    ['G', 'white', 0, 1, 40],
    ['G', 'white', 1, 2, 60],
    ['L', 'red', 0, 2, 100],
  ])
  expect(told(draft('assumed'))).toEqual([
    ['G', 'white', 0, 1, 40],
    ['G', 'white', 1, 2, 60],
    ['L', 'red', 0, 2, 100],
    ['J', null, 0, 1, 180],
  ])
  expect(told(draft('seen'), true).at(-1)).toEqual(['J', null, 0, 1, 270])
  expect([
    isPinned(null),
    isPinned({ value: { awg: 1 }, how: 'assumed', on: null }),
    isPinned({ value: { awg: 1 }, how: 'reported', on: null }),
  ]).toEqual([false, false, true])
})

test('a property as it would be is a property: sound, and no worse wired than before; nothing on record is changed', () => {
  const { site } = demoProperty()
  const before = JSON.stringify(site)
  for (const what of [
    { moved_m: 80 },
    { moved_m: -500 },
    { added: { count: 4, beyond_m: 60 } },
    { together: 3, mains_Hz: 50 as const, hottest_C: 45, rating_VA: 75, masterFirst: true },
  ]) {
    const would = asIf(site, what)
    // Tags of what would be added are not tags for a door; all else must hold.
    expect([what, brokenInvariants(would).filter((r) => r.code !== 'tag_twice')]).toEqual([what, []])
    expect([what, checkSite(would).filter((f) => f.weight === 'wrong')]).toEqual([what, []])
    expect([what, marginsOf(would).unwired]).toEqual([what, []])
  }
  expect(JSON.stringify(site)).toBe(before)
  const margin = (what: Parameters<typeof asIf>[1]) => marginsOf(asIf(site, what)).threads[0]!.margin_V
  expect([
    margin({ moved_m: 60 }) < margin({}),
    margin({ moved_m: -10 }) > margin({}),
    margin({ together: 2 }) < margin({}),
    margin({ hottest_C: 50 }) < margin({}),
    margin({ rating_VA: 75 }) > margin({}),
    margin({ masterFirst: true }) > margin({}),
  ]).toEqual([true, true, true, true, true, true])
})
