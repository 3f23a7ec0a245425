import { engineOf, conditionsFor, closings, poweredOf, runningOf, answerOf } from '../circuit'
import { listCommands, runsOf, stationRow } from '../plan'
import {
  applyBatch,
  Draft,
  emptySite,
  endKey,
  entries,
  looseCommand,
  getOrThrow,
  type Command,
  type ControllerId,
  type PlaceId,
  type Site,
} from '../site'
import type { Outcome } from '../refusal'
import { seeded } from '../../tests/random-site'
import {
  boxJoints,
  brokenRules,
  censusCounts,
  censusOf,
  connectorCommands,
  connectorsForVan,
  pinCommands,
  planRun,
  runPlanCommands,
  splitCommands,
  splitOf,
  tickCommands,
  wayCommandsOf,
  wireCommands,
  wiringPlanCommands,
} from '.'

const after = (site: Site, commands: readonly Command[] | Outcome<Command[]>): Site => {
  if ('ok' in commands && !commands.ok) throw new Error(JSON.stringify(commands.refusals))
  const applied = applyBatch(site, 'ok' in commands ? commands.value : commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const planned = (site: Site): Site => after(site, wiringPlanCommands(site))
const rows = (...list: Record<string, unknown>[]) => list.map((r) => stationRow.parse(r))
const at = (tag: string) => tag as PlaceId
const common = (site: Site, place: string) => boxJoints(site, at(place)).find((j) => j.serves === 'common')!
const kinds = (site: Site, place: string) =>
  boxJoints(site, at(place)).map((j) => j.holds.map((h) => h.record.connector))

/** Whether every station's valve and every master gets volts from its terminal, by the circuit engine. */
function reached(site: Site): string[] {
  return entries(site.stations).flatMap(([, s]) => {
    const running = runningOf(site, [{ controller: s.controller, terminal: s.terminal }])
    if (!running.ok) return [s.name]
    const powered = poweredOf(
      site,
      conditionsFor(running.value, {
        climate: { ground_C: 20, coil_C: 20 },
        frequency_Hz: 60,
        phase: 'safe',
        mains_ratio: 1,
        wire: 'nominal',
      }),
    )
    const engine = engineOf(powered)
    const answer = answerOf(engine, engine.solve(closings(powered, running.value.live)))
    return s.valves.flatMap((v) => {
      const coil = answer.coils.find((c) => c.device === v)
      return coil && coil.volt_V > 10 ? [] : [s.name]
    })
  })
}

test('random lists: every end in exactly one joint, every connector within its limits, every station reached, no spare uncapped', () => {
  for (let seed = 0; seed < 60; seed++) {
    const random = seeded(seed)
    const boxes = 1 + Math.floor(random() * 6)
    const many = 1 + Math.floor(random() * 14)
    const list = rows(
      { station: 'MV', box: 'B1', coil: '40' },
      ...Array.from({ length: many }, (_, i) => ({
        station: String(i + 1),
        name: `Zone ${i + 1}`,
        box: `B${1 + Math.floor(random() * boxes)}`,
        coil: '33',
        kind: random() < 0.3 ? 'single' : 'multicore',
      })),
    )
    const bare = after(emptySite('Random'), listCommands(emptySite('Random'), list))
    const settings = {
      ...bare.settings,
      wiring: { ...bare.settings.wiring, manyCommons: random() < 0.5 ? ('split' as const) : ('chain' as const) },
    }
    const site = planned({ ...bare, settings })
    expect([
      seed,
      brokenRules(site)
        .filter((b) => b.code !== 'common_crowded')
        .map((b) => b.code),
    ]).toEqual([seed, []])
    expect([seed, reached(site)]).toEqual([seed, []])
    const held = Object.values(site.splices).flatMap((s) => s.ends.map(endKey))
    expect(new Set(held).size).toBe(held.length)
    for (const [device] of entries(site.devices))
      for (const port of ['a', 'b'])
        expect([seed, device, held.includes(endKey({ kind: 'port', device, port }))]).toEqual([seed, device, true])
    for (const [place] of entries(site.places))
      for (const c of censusOf(site, place)) expect([seed, c.loose]).toEqual([seed, []])
    for (const run of runsOf(site, 'A' as ControllerId)) {
      const plan = planRun(site, run)
      if (getOrThrow(site.cables, run.cable).kind === 'multicore')
        expect([seed, plan.has]).toEqual([seed, Math.max(plan.needs.cores, plan.has)])
      expect(new Set(plan.cores.map((c) => c.planned)).size).toBe(plan.cores.length)
    }
    expect(planned(site)).toEqual(site)
  }
})

const five = () =>
  planned(
    after(
      emptySite('Five'),
      listCommands(
        emptySite('Five'),
        rows(...['1', '2', '3'].map((station) => ({ station, name: station, box: 'B1', coil: '33' })), {
          station: '4',
          name: 'Far',
          box: 'B2',
          coil: '33',
        }),
      ),
    ),
  )

test('five commons with three-port crimps: a chain of three with two jumpers, or the common split over two cores; a nut holds them in one', () => {
  const site = five()
  const joint = common(site, 'B1')
  expect(joint.ends).toHaveLength(5)
  expect(joint.ways.map((w) => [w.way, w.plan.made.map((m) => m.connector.kind), w.plan.jumpers])).toEqual([
    ['one', ['nut_and_gel_tube'], 0],
    ['chain', ['gel_crimp_3', 'gel_crimp_3', 'gel_crimp_3'], 2],
  ])
  const chained = after(site, wayCommandsOf(site, joint, joint.ways[1]!))
  expect(common(chained, 'B1').holds.map((h) => [h.record.connector, h.record.ends.length, h.misfit])).toEqual(
    Array.from({ length: 3 }, () => ['gel_crimp_3', 3, null]),
  )
  expect([reached(chained), Object.values(chained.cables).filter((c) => c.kind === 'jumper').length]).toEqual([[], 2])
  const split = splitOf(site, joint)!
  expect([split.connectors, split.moved.length]).toEqual([2, 2])
  const parted = planned(after(site, splitCommands(site, joint, split)))
  expect(kinds(parted, 'B1').slice(0, 2)).toEqual([['gel_crimp_3'], ['gel_crimp_3']])
  expect([reached(parted), brokenRules(parted).map((b) => b.code)]).toEqual([[], ['common_crowded']])
  const fromChain = planned(
    after(chained, splitCommands(chained, common(chained, 'B1'), splitOf(chained, common(chained, 'B1'))!)),
  )
  expect([
    reached(fromChain),
    kinds(fromChain, 'B1').slice(0, 2),
    Object.values(fromChain.cables).some((c) => c.kind === 'jumper'),
  ]).toEqual([[], [['gel_crimp_3'], ['gel_crimp_3']], false])
  expect(after(chained, wayCommandsOf(chained, common(chained, 'B1'), joint.ways[0]!)).cables).toEqual(site.cables)
})

test('a thick common with small crimps: one nut, or the thick ones in a nut with a pigtail down to the crimps; a crimp alone is refused with the mend', () => {
  const list = rows(
    ...['1', '2'].map((station) => ({
      station,
      name: station,
      box: 'B1',
      coil: '33',
      kind: 'single',
      gauge: { awg: 18 },
    })),
    { station: '3', name: '3', box: 'B2', coil: '33' },
  )
  const bare = after(emptySite('Thick'), listCommands(emptySite('Thick'), list))
  const run = runsOf(bare, 'A' as ControllerId)[0]!
  const site = planned(
    after(bare, [
      { do: 'set', in: 'cables', id: run.cable, field: 'gauge', value: { value: { awg: 14 }, how: 'reported' } },
    ]),
  )
  const joint = common(site, 'B1')
  expect(joint.ways.map((w) => [w.way, w.plan.made.map((m) => m.connector.kind)])).toEqual([
    ['one', ['nut_and_gel_tube']],
    ['pigtail', ['nut_and_gel_tube', 'gel_crimp_3']],
  ])
  const tailed = after(site, wayCommandsOf(site, joint, joint.ways[1]!))
  expect([reached(tailed), brokenRules(tailed).map((b) => b.code)]).toEqual([[], []])
  const refused = connectorCommands(site, joint.id, 'gel_crimp_3')
  expect(refused.ok ? null : refused.refusals[0]).toMatchObject({ code: 'connector_too_many', params: { count: 0 } })
})

/** A laid six-core jacket with a filler: common, four leads in two boxes 20 m apart, and one spare. */
function laid(spares: number): Draft {
  const leads: [string, string, string][] = [
    ['1', 'red', 'B1'],
    ['2', 'yellow', 'B1'],
    ['3', 'blue', 'B2'],
    ['4', 'green', 'B2'],
  ]
  const spare = ['brown', 'grey'].slice(0, spares)
  const draft = new Draft('Laid')
    .place('A', 'cabinet')
    .place('B1')
    .place('B2')
    .controller('A', 'A', 5)
    .coilKind('k', 33)
    .cable(
      'K1',
      {
        gauge: { awg: 18 },
        stops: [
          ['A', 0],
          ['B1', 30],
          ['B2', 50],
        ],
        cores: ['white', ...leads.map(([, c]) => c), ...spare],
      },
      { filler: 'pale string' },
    )
  for (const [t, colour, box] of leads) {
    draft
      .valve(`V${t}`, box, 'k')
      .station(`A:${t}`, `Zone ${t}`, [`V${t}`])
      .join('A', [`A:${t}`, `K1.${colour}>`])
      .join(box, [`K1.${colour}<`, `V${t}.a`], 'gel_crimp_3')
    if (box === 'B1') draft.join(box, [`K1.${colour}>`]).join('B2', [`K1.${colour}<`])
  }
  for (const c of spare) draft.join('A', [`K1.${c}>`]).join('B2', [`K1.${c}<`])
  return draft
    .join('A', ['A:C', 'K1.white>'])
    .join('B1', ['K1.white<', 'V1.b', 'V2.b', 'K1.white>'], 'nut_and_gel_tube')
    .join('B2', ['K1.white<', 'V3.b', 'V4.b'], 'gel_crimp_3')
}

test('a six-core jacket with a filler, boxes 20 m apart on one cable: who is cut and who runs through; the filler is told beside the white core', () => {
  const site = laid(1).site()
  expect(censusOf(site, at('B1')).map((c) => [c.colour, c.use, c.here, c.terminal])).toEqual([
    ['white', 'common', 'cut', 'A:C'],
    ['red', 'in_use', 'cut', 'A:1'],
    ['yellow', 'in_use', 'cut', 'A:2'],
    ['blue', 'in_use', 'through', 'A:3'],
    ['green', 'in_use', 'through', 'A:4'],
    ['brown', 'spare', 'through', null],
  ])
  expect(brokenRules(site).map((b) => [b.code, b.params.cores])).toEqual([['filler_by_pale_core', 6]])
  expect(planRun(site, runsOf(site, 'A' as ControllerId)[0]!)).toMatchObject({
    laid: true,
    has: 6,
    needs: { stations: 4, commons: 1, spares: 2, cores: 7 },
    jacket: 7,
    advised: { kind: 'multicore', because: 'short_and_few' },
  })
  expect(runPlanCommands(site, runsOf(site, 'A' as ControllerId)[0]!)).toEqual([])
})

test('seven cores with two spares: a new valve takes one of them, kept for it or not; without a spare core it waits in its box', () => {
  const add = (site: Site) =>
    after(site, listCommands(site, rows({ station: '5', name: 'New', box: 'B1', cable: 'K1' })))
  const site = laid(2).site()
  expect(censusCounts(censusOf(site, at('B2')))).toEqual({ in_use: 2, common: 1, spare: 4, unknown: 0 })
  const taken = add(site)
  expect([reached(taken), censusCounts(censusOf(taken, at('A')))]).toEqual([
    [],
    { in_use: 5, common: 1, spare: 1, unknown: 0 },
  ])
  const kept = add(after(site, pinCommands(site, 'K1' as never, 'brown' as never, { use: 'spare' })))
  expect(censusOf(kept, at('A')).find((c) => c.terminal === 'A:5')?.colour).toBe('grey')
  const none = add(laid(0).site())
  const plan = planRun(none, runsOf(none, 'A' as ControllerId)[0]!)
  expect(plan.unwired).toMatchObject([{ place: 'B1', core: null }])
  expect(wireCommands(none, plan.run, plan.unwired[0]!)).toMatchObject({
    ok: false,
    refusals: [{ code: 'no_core_left', params: { cable: 'K1' } }],
  })
})

test('a pinned core serves the station it is kept for, colours follow the numbering, made joints are left alone', () => {
  const site = five()
  const run = runsOf(site, 'A' as ControllerId)[0]!
  expect(planRun(site, run).cores.map((c) => [c.terminal, c.colour])).toEqual([
    ['A:C', 'white'],
    ['A:1', 'red'],
    ['A:2', 'yellow'],
    ['A:3', 'blue'],
    ['A:4', 'green'],
    [null, 'brown'],
    [null, 'violet'],
  ])
  const brown = planRun(site, run).cores.find((c) => c.colour === 'brown')!
  const pinned = after(site, pinCommands(site, run.cable, brown.core, { use: 'station', station: 'A-2' as never }))
  const swapped = after(pinned, runPlanCommands(pinned, run))
  expect([
    planRun(swapped, run).cores.find((c) => c.terminal === 'A:2')?.core,
    reached(swapped),
    brokenRules(swapped),
  ]).toEqual([brown.core, [], []])
  const joint = common(site, 'B1')
  const ticked = after(site, tickCommands(site, joint.id, 'tugged', true, '2026-11-25'))
  expect(ticked.splices[joint.id]).toMatchObject({ ticks: ['tugged'], made: { value: '2026-11-25' } })
  expect(after(ticked, tickCommands(ticked, joint.id, 'tugged', false, '2026-11-25'))).toEqual(site)
  expect(connectorsForVan(site, at('B1'))).toEqual([
    { kind: 'cap', count: 3 },
    { kind: 'gel_crimp_3', count: 3 },
    { kind: 'nut_and_gel_tube', count: 1 },
  ])
  expect(connectorsForVan(ticked, at('B1')).find((c) => c.kind === 'nut_and_gel_tube')).toBeUndefined()
})

test('broken rules are named: overfilled, dry or bare in a box, two reds, unlike ends, unlike leads of a coil, a spare open at one end', () => {
  const draft = laid(1).core('K1', 'yellow', { colour: { value: 'Red', how: 'seen' }, colourAt: { B2: 'orange' } })
  const site = draft.site()
  const set = (collection: 'splices' | 'devices', id: string, field: string, value: unknown) =>
    looseCommand({ do: 'set', in: collection, id, field, value })
  const joint = (box: string, i: number) => boxJoints(site, at(box))[i]!.id
  const spare = entries(site.splices).find(
    ([, s]) => s.place === at('B2') && s.ends.some((e) => e.kind === 'core' && e.core === 'brown'),
  )![0]
  const broken = after(site, [
    set('splices', joint('B1', 0), 'connector', 'gel_crimp_3'),
    set('splices', joint('B1', 1), 'connector', 'dry_nut'),
    set('splices', joint('B2', 1), 'connector', 'bare_twist'),
    set('devices', 'V1', 'leads', { a: 'red', b: 'black' }),
    set('devices', 'V1', 'coilKind', null),
    { do: 'remove', in: 'splices', id: spare },
  ])
  expect(
    brokenRules(broken)
      .map((b) => `${b.weight} ${b.code}`)
      .sort(),
  ).toEqual([
    'doubt filler_by_pale_core',
    'doubt leads_unlike',
    'doubt spare_open',
    'doubt two_alike',
    'wrong bare_in_box',
    'wrong dry_in_box',
    'wrong holds_too_many',
    'wrong unlike_ends',
  ])
})
