import { drawnDamage, judged } from '../../tests/drawn-damage'
import { quarryLake } from '../../demo/quarry-lake'
import type { Part } from '../record'
import type { CableId, ControllerId, PlaceId, Site } from '../site'
import { nearby, readFinding, repairsFor, USUAL_FIGURES, type RepairOption } from '.'
import { soundSpares } from './lead'

const A = 'A' as ControllerId
const demo = quarryLake()
const options = (where: object, site = demo) => repairsFor(site, A, where as Part, '2027-05-01')
const codes = (of: readonly RepairOption[]) => of.map((o) => (o.possible ? o.code : `${o.code} not: ${o.why.code}`))

test('a dead lead: what is possible by price, what is not with its reason', () => {
  const lead = { kind: 'run', cable: 'K1', core: 'brown', from: 'B2', to: 'B3' }
  expect(codes(options(lead))).toEqual([
    ...['two_on_lead', 'spare_core', 'trace_and_mend', 'sequencer', 'new_wire', 'two_wire'],
  ])
  const common = { kind: 'run', cable: 'K1', core: 'white', from: 'B4', to: 'B5' }
  expect(codes(options(common))).toEqual([
    'spare_core',
    'trace_and_mend',
    'new_wire',
    'two_wire',
    'two_on_lead not: several_stations',
    'sequencer not: several_stations',
  ])
  // Two zones of the bank want more water together than the pump house gives.
  expect(codes(options({ kind: 'thread', controller: 'A', terminal: '14' }))).toEqual([
    'trace_and_mend',
    'sequencer',
    'new_wire',
    'spare_core not: no_spare',
    'two_on_lead not: over_flow',
    'two_wire not: too_few_cores',
  ])
})

test('a master that does not come in can be bypassed for now, behind what lasts; a coil alone or with its valve', () => {
  expect(codes(options({ kind: 'coil', device: 'MV' }))).toEqual(['coil', 'whole_valve', 'bypass_master'])
  const [, , bypass] = options({ kind: 'coil', device: 'MV' })
  expect(bypass).toMatchObject({
    isTemporary: true,
    commands: [
      { id: 'MV', field: 'condition' },
      { do: 'create', in: 'temporaryStates' },
    ],
  })
})

test('on drawn properties every repair that is called possible waters again, by its commands, in a simulated one', () => {
  let [possible, harmed] = [0, 0]
  for (let seed = 1; seed <= 25; seed++) {
    const { site, where } = drawnDamage(seed)
    const { options: found, dryAfter, astray, isHarmed } = judged(site, where)
    harmed += Number(isHarmed)
    expect([seed, where.kind, dryAfter, astray]).toEqual([seed, where.kind, [], []])
    const lasting = found.flatMap((o) => (o.possible && !o.isTemporary ? [o.cents] : []))
    expect(lasting).toEqual([...lasting].sort((a, b) => a - b))
    possible += lasting.length
  }
  expect([possible > 30, harmed > 12]).toEqual([true, true])
})

test('a finding that names nothing on record is refused at its field; what is due in an open box comes with what it saves', () => {
  const refusal = (where: object) => {
    const read = readFinding(demo, JSON.stringify({ where }))
    return read.ok ? null : read.refusals.map((r) => `${r.code} ${r.path.join('.')}`)
  }
  expect(refusal({ kind: 'coil', device: 'V3' })).toBeNull()
  expect(refusal({ kind: 'coil', device: 'V99' })).toEqual(['no_such_record where.device'])
  expect(refusal({ kind: 'run', cable: 'K1', core: 'brown', from: 'B2', to: 'Z' })).toEqual(['no_such_record where.to'])
  expect(refusal({ kind: 'pump' })).toEqual([expect.stringContaining('where')])
  const seen = [
    { place: 'B3' as PlaceId, what: 'wet_box' as const },
    { place: 'B7' as PlaceId, what: 'leak' as const },
  ]
  const due = nearby(demo, ['B3' as PlaceId], '2009-05-12', '2027-05-01', USUAL_FIGURES, seen)
  expect(due.map((n) => n.code)).toContain('joint_as_old')
  // What was seen elsewhere is no reason to stay here.
  expect(due.flatMap((n) => (n.code === 'seen' ? [n.params] : []))).toEqual([{ what: 'wet_box', box: 'B3' }])
  expect(due.every((n) => n.saves_min > 0 && n.minutes > 0)).toBe(true)
})

test('a spare that is known to touch another is none', () => {
  const spares = soundSpares(demo, 'K1' as CableId)
  expect(spares.length).toBeGreaterThan(1)
  const touch = {
    kind: 'touch',
    cable: 'K1',
    core: spares[0],
    other: 'brown',
    from: 'A',
    ohm: 0,
    since: null,
    note: '',
  }
  const site = { ...demo, defects: { d: touch } } as unknown as Site
  expect(soundSpares(site, 'K1' as CableId)).toEqual(spares.slice(1))
})
