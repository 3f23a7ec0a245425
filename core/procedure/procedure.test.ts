import { quarryLake } from '../../demo/quarry-lake'
import { FollowedWork as Work } from '../../tests/followed-work'
import { sceneOf } from '../expect'
import { pastOf } from '../history'
import { COMMON_METER, noFacts, type StepAnswer, type WorkTarget } from '../record'
import {
  applyBatch,
  getOrThrow,
  type ControllerId,
  type DeviceId,
  type PlaceId,
  type Site,
  type SpliceId,
  type TerminalId,
} from '../site'
import { countOf, eventsIn, nextOf, sequencersOf, turnsIn } from '../sequencer'
import { censusOf } from '../splice'
import {
  brokenCopy,
  controllerFor,
  copyOf,
  deedCommands,
  expectedAt,
  figureBandOf,
  kitFor,
  makingOf,
  movedStep,
  proceduresOn,
  readProcedure,
  runOf,
  SHIPPED,
  shipped,
  stationsOnFoot,
  targetsOf,
  testOf,
  toldOf,
  unfold,
  unsettledOf,
  withOwnStep,
  withoutStep,
  withStep,
} from './index'

const demo = quarryLake()
const [A, S] = ['A' as ControllerId, 'S' as ControllerId]
const on = (controller: ControllerId): WorkTarget => ({ kind: 'controller', controller })
const after = (site: Site, commands: Parameters<typeof applyBatch>[1]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const keys = (id: string, target: WorkTarget, site = demo) => unfold(site, shipped(id)!, target).map((s) => s.key)

test('a procedure is unfolded over the things at hand: one screw at a time, the common last; threads by the door, zones on foot', () => {
  const moves = keys('change_controller', on(A)).filter((k) => k.startsWith('move@'))
  expect([moves.length, moves[0], moves.at(-1)]).toEqual([20, 'move@terminal A MV', 'move@terminal A C'])
  expect(keys('change_controller', on(A)).indexOf('power')).toBeLessThan(
    keys('change_controller', on(A)).indexOf(moves[0]!),
  )
  const boathouse = keys('commission', on(S))
  expect(boathouse.filter((k) => k.startsWith('ohms@'))).toEqual(
    ['1', '2', '3', '4'].map((t) => `ohms@terminal S ${t}`),
  )
  expect(boathouse.filter((k) => k.startsWith('at_box@'))).toHaveLength(2)
  expect(boathouse.some((k) => k.startsWith('master_click'))).toBe(false)
  // Each thread is read to common and to earth while the clips are there, each zone clicked, watered and measured.
  const zones = boathouse.filter((k) => k.includes('@terminal S 1'))
  expect(zones.map((k) => k.split('@')[0])).toEqual(['ohms', 'earth', 'click', 'zone', 'volts'])
  const hybrid = after(demo, [
    { do: 'set', in: 'controllers', id: 'S', field: 'kind', value: 'hybrid' },
    { do: 'set', in: 'controllers', id: 'S', field: 'sensor', value: { closedBy: 'sensor', dry: 'open' } },
  ])
  const there = (site: Site) =>
    ['decoders', 'link', 'sensor'].map((k) => keys('change_controller', on(S), site).includes(k))
  expect([there(demo), there(hybrid)]).toEqual([
    [false, true, false],
    [true, false, true],
  ])
  expect(new Set(stationsOnFoot(demo, A).map((s) => s.terminal)).size).toBe(18)
})

test('no two steps of a piece of work have one key, with numbers on a path neither', () => {
  for (const controller of Object.keys(demo.controllers) as ControllerId[])
    for (const procedure of SHIPPED.filter((p) => p.on === 'controller')) {
      const keysOf = unfold(demo, procedure, { kind: 'controller', controller }).map((s) => s.key)
      expect([procedure.id, controller, keysOf.length]).toEqual([procedure.id, controller, new Set(keysOf).size])
    }
})

test('every procedure finds its things on the property, and speaks of them', () => {
  const counts = Object.fromEntries(SHIPPED.map((p) => [p.id, targetsOf(demo, p).length]))
  expect(counts).toMatchObject({ arrive: 1, filled_nut: 80, nut_and_tube: 45, gel_crimp: 0, coil_change: 56 })
  expect(counts).toMatchObject({
    pump_relay: 1,
    under_pressure: 1,
    sequencer: 1,
    decoder: 22,
    arrestor: 16,
    remake: 123,
  })
  const joint = targetsOf(demo, shipped('filled_nut')!)[0]!
  expect(makingOf(demo, joint)?.id).toBe('filled_nut')
  expect(proceduresOn(demo, joint).map((p) => p.id)).toEqual(['filled_nut', 'remake'])
  expect(toldOf(demo, { target: joint })).toMatchObject({
    connector: 'gel_nut',
    strip_mm: 19,
    ends: 2,
    terminal: 'MV',
    conductors: [{ colour: 'orange' }, { colour: null, from: 'MV', way: 'device' }],
  })
  expect(toldOf(demo, { target: on(A) })).toMatchObject({ stations: 18, limit_A: 0.28, master: 'MV', common: 'C' })
  const proved = unfold(demo, shipped('coil_change')!, { kind: 'coil', device: 'V5' as DeviceId })[1]!
  const expected = expectedAt(sceneOf(demo), testOf(demo, proved)!, COMMON_METER)
  const kind = getOrThrow(demo.coilKinds, getOrThrow(demo.devices, 'V5' as DeviceId).coilKind!)
  expect(expected).toMatchObject({ kind: 'ohms' })
  if (expected?.kind === 'ohms') expect(expected.expected_ohm / kind.resistance_ohm).toBeCloseTo(1, 1)
})

test('a sequencer is brought into step turn by turn until its last valve waters, and every turn counts', () => {
  const [q] = sequencersOf(demo, S)
  const [first, last] = [q!.outputs[0]![0]!, q!.outputs[1]![0]!]
  const work = new Work('sequencer_sync', { kind: 'device', device: q!.device })
  expect(toldOf(demo, { target: work.target }).lastValve).toContain(String(demo.devices[last]!.tag))
  work.give('program')
  work.give('turn_1', { kind: 'chosen', option: 'another_valve' })
  expect([work.state('turn_2'), work.state('turn_3'), work.state('never')]).toEqual(['open', 'not there', 'not there'])
  work.give('turn_2', { kind: 'chosen', option: 'last_valve' })
  work.give('restored')
  expect(work.run().left).toBe(0)
  const events = eventsIn(work.facts, S, q!)
  expect([turnsIn(events), nextOf(q!, countOf(q!, events))]).toEqual([2, [{ of: first, probability: 1 }]])
  // A tap that is taken back is no turn.
  work.give('turn_2', { kind: 'undone' })
  expect(turnsIn(eventsIn(work.facts, S, q!))).toBe(1)
  const walk = new Work('wet_check', on(S))
  const zone = keys('wet_check', on(S)).find((k) => k === `zone@terminal S ${q!.fedBy[0]}`)!
  walk.give(zone, { kind: 'chosen', option: 'waters_well' })
  expect(turnsIn(eventsIn(walk.facts, S, q!))).toBe(1)
})

test('a hold is not passed, only answered or refused with its reason; what fails keeps it shut; another person goes on', () => {
  const work = new Work('coil_change', { kind: 'coil', device: 'V5' as DeviceId })
  expect([work.run().next, work.state('proved'), work.state('whole')]).toEqual(['box', 'open', 'locked'])
  work.read('proved', 12)
  expect([work.state('proved'), work.state('whole'), work.state('flow_shut')]).toEqual(['done', 'open', 'locked'])
  work.give('prove_water', { kind: 'chosen', option: 'runs_on' })
  expect([work.state('prove_water'), work.state('flow_shut')]).toEqual(['failed', 'locked'])
  work.give('prove_water', { kind: 'chosen', option: 'stops' }, 'Ben')
  expect([work.state('prove_water'), work.state('flow_shut'), work.state('ring')]).toEqual(['done', 'open', 'open'])
  work.give('ring', { kind: 'refused', reason: 'no new coil in the van' })
  expect([work.state('ring'), work.state('hand_tight')]).toEqual(['refused', 'open'])
  work.give('ring', { kind: 'undone' })
  expect([work.state('ring'), work.state('hand_tight')]).toEqual(['open', 'locked'])
  expect(work.run().steps.find((s) => s.key === 'prove_water')!.given!.author).toBe('Ben')
  // A reading that is struck out answers nothing any more.
  work.facts.strikeOuts = { x: { reading: 'r0', at: work.now(), author: 'Ada', reason: 'clips off' } }
  expect([work.state('proved'), work.state('whole')]).toEqual(['open', 'locked'])
  const figure = new Work('arrestor', { kind: 'box', place: 'B2' as PlaceId })
  figure.give('reading', { kind: 'figure', value: 40 })
  expect(figure.state('reading')).toBe('failed')
  expect(runOf(demo, { ...figure.facts, jobs: {} }, 'j')).toBeNull()
  // A figure is held against the record’s own where a step says so: the stations it shows, the limit of the terminal.
  const module = new Work('module', on(A))
  for (const value of [17, 18]) module.give('count', { kind: 'figure', value })
  expect(module.state('count')).toBe('done')
  module.give('count', { kind: 'figure', value: 17 })
  expect([module.state('count'), module.state('labels')]).toEqual(['failed', 'locked'])
  const sum = unfold(demo, shipped('pump_relay')!, on(A)).find((s) => s.key === 'sum')!
  expect(figureBandOf(demo, sum)).toEqual({ low: 0, high: 0.28 })
})

test('within one thread a hold keeps back that thread; after the last the rest is open; branches follow their answers', () => {
  const work = new Work('commission', on(S))
  for (const step of ['pause', 'supply', 'leads_off']) work.give(step)
  expect([work.state('ohms@terminal S 1'), work.state('earth@terminal S 1')]).toEqual(['open', 'locked'])
  expect([work.state('ohms@terminal S 3'), work.state('leads_on')]).toEqual(['open', 'locked'])
  for (const t of ['1', '2', '3', '4']) work.read(`ohms@terminal S ${t}`, 33.6)
  expect([work.state('earth@terminal S 4'), work.state('leads_on')]).toEqual(['open', 'open'])
  const box = new Work('new_box', { kind: 'box', place: 'B2' as PlaceId })
  expect(box.state('leak_again')).toBe('not there')
  box.give('located')
  box.give('leak', { kind: 'chosen', option: 'drips' })
  box.give('leak_again', { kind: 'chosen', option: 'dry' })
  expect([box.state('leak'), box.state('leak_twice'), box.state('slack')]).toEqual(['done', 'open', 'locked'])
})

test('what does not fit is settled by a reason or by reading it again', () => {
  const work = new Work('commission', on(S))
  const settle = () =>
    unsettledOf({ scene: sceneOf(demo), sceneAt: () => sceneOf(demo), past: pastOf(noFacts(), 'j') }, work.facts, 'j')
  const good = work.read('ohms@terminal S 1', 33.8)
  const bad = work.read('ohms@terminal S 2', 71)
  expect(settle().map((u) => [u.id, u.judged.verdict.code])).toEqual([[bad, 'high']])
  work.facts.acceptances = { a: { reading: bad, at: work.now(), author: 'Ada', reason: 'long lead, not on record' } }
  expect([settle(), good]).toEqual([[], 'r0'])
})

const context = { today: '2027-03-01', id: () => `n${Math.random().toString(36).slice(2)}` }
const deed = (site: Site, id: string, target: WorkTarget, key: string, answer: StepAnswer = { kind: 'done' }): Site => {
  const here = unfold(site, shipped(id)!, target).find((s) => s.key === key)
  if (!here) throw new Error(`no step ${key}`)
  const commands = deedCommands(site, here, answer, context)
  if (!commands.ok) throw new Error(JSON.stringify(commands.refusals))
  return after(site, commands.value)
}

test('what a step writes is on record once it is answered: ticks with the joint, a joint cut open, a new coil, caps, a sensor', () => {
  const target = targetsOf(demo, shipped('filled_nut')!)[3] as Extract<WorkTarget, { kind: 'joint' }>
  const splice = (site: Site) => getOrThrow(site.splices, target.splice)
  const opened = deed(demo, 'remake', target, 'open')
  expect([splice(demo).made !== null, splice(opened).made, splice(opened).ticks]).toEqual([true, null, []])
  const made = ['strip', 'twist', 'tug', 'copper'].reduce((site, key) => deed(site, 'filled_nut', target, key), opened)
  expect(splice(made)).toMatchObject({
    ticks: ['home', 'squeezed', 'tugged', 'sealed'],
    made: { value: '2027-03-01', how: 'seen' },
  })
  // The joint itself says which of its steps are done, whoever ticked them; taken back, it is not.
  const work = new Work('filled_nut', target, made)
  expect([work.state('tug'), work.state('power')]).toEqual(['done', 'open'])
  work.site = deed(made, 'filled_nut', target, 'tug', { kind: 'undone' })
  expect(work.state('tug')).toBe('locked')
  work.give('power')
  work.give('tug', { kind: 'refused', reason: 'seized' })
  expect(work.state('tug')).toBe('refused')
  work.give('tug', { kind: 'undone' })
  expect(work.state('tug')).toBe('open')
  const nut = deed(opened, 'remake', target, 'kind', { kind: 'chosen', option: 'nut_and_gel_tube' })
  expect(splice(nut).connector).toBe('nut_and_gel_tube')

  const coil: WorkTarget = { kind: 'coil', device: 'V5' as DeviceId }
  const broken = after(demo, [
    { do: 'set', in: 'devices', id: 'V5', field: 'condition', value: { state: 'open', since: null, note: '' } },
  ])
  const changed = deed(broken, 'coil_change', coil, 'baseline', { kind: 'reading', reading: 'r' })
  expect(changed.devices['V5' as DeviceId]).toMatchObject({
    installed: { value: '2027-03-01' },
    condition: { state: 'sound' },
  })

  const place = 'B7' as PlaceId
  const bare = after(
    demo,
    Object.entries(demo.splices)
      .filter(([, s]) => s.connector === 'cap' && s.place === place)
      .map(([id]) => ({ do: 'remove', in: 'splices', id })),
  )
  const loose = (site: Site) => censusOf(site, place).flatMap((c) => c.loose).length
  const spares = unfold(bare, shipped('spare_cores')!, { kind: 'box', place }).filter((s) => s.item !== null)
  const capped = spares.reduce((site, s) => deed(site, 'spare_cores', { kind: 'box', place }, s.key), bare)
  expect([loose(bare) > 0, loose(capped)]).toEqual([true, 0])

  const wired = deed(demo, 'sensor', on(A), 'setting', { kind: 'chosen', option: 'open_when_dry' })
  expect(wired.controllers[A]!.sensor).toMatchObject({ closedBy: 'sensor', dry: 'open' })
  const here: WorkTarget = { kind: 'property' }
  const noted = unfold(demo, shipped('leave')!, here).find((s) => s.key === 'temporary_what')!
  const told = deedCommands(demo, noted, { kind: 'text', text: 'Master valve bypassed' }, context)
  const left = after(demo, told.ok ? told.value : [])
  const key = keys('arrive', here, left).find((k) => k.startsWith('temporary@'))!
  expect(deed(left, 'arrive', here, key, { kind: 'chosen', option: 'stays' })).toEqual(left)
  expect(deed(left, 'arrive', here, key, { kind: 'chosen', option: 'undone' }).temporaryStates).toEqual({})
})

test('a company adapts a copy: cautions and holds stay, what does not float stays in its order, its own steps have words', () => {
  const ours = shipped('gel_crimp')!
  const copy = copyOf(ours, 'our_crimp', 'Our crimp')
  const own = { ...copy, steps: [...copy.steps, { ...ours.steps[1]!, id: 'label', cautions: [], says: 'Label it.' }] }
  expect(brokenCopy(own)).toEqual([])
  expect(readProcedure(JSON.stringify(own))).toEqual({ ok: true, value: own })
  const change = (id: string, more: object) => ({
    ...copy,
    steps: copy.steps.map((s) => (s.id === id ? { ...s, ...more } : s)),
  })
  const codes = (p: typeof copy) => brokenCopy(p).map((r) => r.code)
  expect(codes({ ...copy, id: 'gel_crimp' })).toEqual(['procedure_name_taken'])
  expect(codes({ ...copy, steps: copy.steps.filter((s) => s.id !== 'home') })).toEqual(['step_gone'])
  expect(codes({ ...copy, steps: copy.steps.filter((s) => s.id !== 'bundle') })).toEqual([])
  expect(codes(change('home', { hold: false }))).toEqual(['hold_gone'])
  expect(codes(change('cut', { cautions: [] }))).toEqual(['caution_gone'])
  expect(codes(change('tug', { does: { kind: 'text' } }))).toEqual(['step_changed'])
  expect(codes(change('tug', { hold: true, cautions: ['eyes'], says: 'Tug, twice.' }))).toEqual([])
  expect(codes({ ...copy, steps: [...copy.steps].reverse() })).toEqual(['step_moved'])
  expect(codes({ ...own, steps: own.steps.map(({ says: _s, ...s }) => s) })).toEqual(['step_without_words'])
  expect(codes({ ...copy, on: 'box' })).toEqual(['procedure_elsewhere'])
  const outcome = readProcedure('{')
  expect(outcome.ok ? [] : outcome.refusals.map((r) => r.code)).toEqual(['procedure_not_json'])
})

test('a copy is edited only so that it stays whole: what floats and what is theirs moves, what holds a caution stays', () => {
  const copy = copyOf(shipped('arrive')!, 'our_arrival', 'Our arrival')
  const at = (id: string, of = copy) => of.steps.findIndex((s) => s.id === id)
  for (const by of [-1, 1] as const)
    copy.steps.forEach((step, i) => {
      const moved = movedStep(copy, i, by)
      const [other, past] = [copy.steps[i + by], !copy.steps[i + by]]
      expect([step.id, by, moved !== null]).toEqual([step.id, by, !past && (step.floats || other!.floats)])
      if (moved) expect(brokenCopy(moved)).toEqual([])
    })
  for (const [i, step] of copy.steps.entries())
    expect([step.id, withoutStep(copy, i) !== null]).toEqual([step.id, !step.hold && step.cautions.length === 0])
  const { copy: more, at: place } = withOwnStep(copy, at('kit'))
  expect([more.steps[place]!.id, brokenCopy(more).map((r) => r.code)]).toEqual(['own', ['step_without_words']])
  const said = withStep(more, place, { ...more.steps[place]!, says: 'Ring the bell at {box}.' })
  expect(brokenCopy(said)).toEqual([])
  expect(withOwnStep(said, place).copy.steps[place + 1]!.id).toBe('own_2')
  expect(withoutStep(said, place)).toEqual(copy)
  // A step that another depends on is neither taken out nor put behind it.
  const asks = { id: 'asks', says: 'Is it wet?', does: { kind: 'choice', options: [{ id: 'yes' }, { id: 'no' }] } }
  const then = { id: 'then', says: 'Wait.', when: [{ step: 'asks', is: ['yes'] }] }
  const own = { id: 'ours', title: 'Ours', family: 'boxes', on: 'box', steps: [asks, then] }
  const read = readProcedure(JSON.stringify(own))
  if (!read.ok) throw new Error(JSON.stringify(read.refusals))
  expect([withoutStep(read.value, 0), movedStep(read.value, 0, 1)]).toEqual([null, null])
  expect(withoutStep(read.value, 1)!.steps).toHaveLength(1)
})

test('the kit of some work: each thing once, connectors by kind with a tenth more', () => {
  const joints = targetsOf(demo, shipped('filled_nut')!).slice(0, 12)
  const coil: WorkTarget = { kind: 'coil', device: 'V5' as DeviceId }
  const kit = kitFor(demo, [
    ...joints.map((target) => ({ procedure: shipped('filled_nut')!, target })),
    { procedure: shipped('coil_change')!, target: coil },
  ])
  expect(kit.connectors).toEqual([{ kind: 'gel_nut', count: 14 }])
  expect(kit.coils).toEqual([{ kind: demo.devices['V5' as DeviceId]!.coilKind, count: 1 }])
  expect(kit.items).toEqual([...new Set(kit.items)])
  expect(kit.items).toEqual(expect.arrayContaining(['meter', 'o_rings', 'stripper']))
  const screw: WorkTarget = { kind: 'terminal', controller: A, terminal: '5' as TerminalId }
  expect(controllerFor(demo, screw)).toBe(A)
  expect(controllerFor(demo, { kind: 'joint', splice: Object.keys(demo.splices)[0] as SpliceId })).not.toBeNull()
})
