import { demoProperty } from '../../demo/quarry-lake'
import { runningOf } from '../circuit'
import { listCommands, stationRow } from '../plan'
import {
  applyBatch,
  Draft,
  setField,
  type Command,
  type ControllerId,
  type FieldOf,
  type Site,
  type TerminalId,
  type ValueOf,
} from '../site'
import { controllerRules, doorOf, inventoryOf, masterSums, modulesOf, newPointCommands, terminalsToCount } from '.'

const after = (site: Site, commands: readonly Command[]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const A = 'A' as ControllerId
const set = <F extends FieldOf<'controllers'>>(field: F, value: ValueOf<'controllers', F>) =>
  setField('controllers', 'A', field, value)
const demo = demoProperty().site
const bay = (tag: string, stations: number | null, kind: 'stations' | 'decoders' = 'stations') => ({
  tag,
  module: stations === null ? null : { kind, stations, label: '' },
})

test('the door: every terminal with its conductors, colours and what it is meant to run; the common holds them all', () => {
  const door = doorOf(demo, A)
  expect(
    door.slice(0, 3).map((t) => [t.tag, t.role, t.landed.map((s) => `${s.from} ${s.colour ?? ''}`.trim()), t.coils]),
  ).toEqual([
    ['C', 'common', ['K1 white', 'PR', 'G2 white'], []],
    ['MV', 'master', ['K1 orange', 'PR'], ['MV', 'PR']],
    ['1', 'station', ['K1 red'], ['V1']],
  ])
  expect(inventoryOf(demo, A)).toEqual({ landed: 23, landedUnknown: 0, capped: 3, loose: 0, terminalsFree: 0 })
})

test('an inherited cabinet: conductors under the clamps whose other end nobody knows are counted, and loose ones in the cabinet', () => {
  const site = new Draft('Inherited')
    .place('X', 'cabinet')
    .place('Q')
    .controller('A', 'X', 4)
    .cable('K9', {
      gauge: null,
      stops: [
        ['X', 0],
        ['Q', null],
      ],
      cores: ['red', 'blue', 'white', 'grey'],
    })
    .join('X', ['A:1', 'K9.red>'])
    .join('X', ['A:2', 'K9.blue>'])
    .join('X', ['A:C', 'K9.white>'])
    .site()
  expect(inventoryOf(site, A)).toEqual({ landed: 3, landedUnknown: 2, capped: 0, loose: 1, terminalsFree: 2 })
})

test('modules: stations count on through the bays, one after an empty bay is not seen, stations never follow decoders', () => {
  const site = after(demo, [set('fixedStations', 6), set('bays', [bay('1', 6), bay('2', 6)])])
  expect(modulesOf(site, A)).toMatchObject({
    counted: 18,
    onRecord: 18,
    broken: [],
    bays: [
      { from: 7, to: 12, seen: true },
      { from: 13, to: 18 },
    ],
  })
  const gap = after(site, [set('bays', [bay('1', 6), bay('2', null), bay('3', 6)])])
  expect(modulesOf(gap, A)).toMatchObject({
    counted: 12,
    bays: [{ seen: true }, { kind: 'empty' }, { seen: false, from: null }],
  })
  expect(modulesOf(gap, A).broken.map((b) => b.code)).toEqual(['bay_skipped', 'terminals_miscounted'])
  const mixed = after(site, [set('bays', [bay('1', 50, 'decoders'), bay('2', 6)])])
  expect(modulesOf(mixed, A).broken.map((b) => b.code)).toEqual([
    'stations_after_decoders',
    'terminals_miscounted',
    'decoders_make_hybrid',
  ])
  expect(modulesOf(after(site, [set('mostStations', 18)]), A).broken).toEqual([])
  expect(modulesOf(after(site, [set('mostStations', 17)]), A).broken.map((b) => b.code)).toEqual(['too_many_stations'])
  const grown = after(site, [set('bays', [bay('1', 6), bay('2', 12)])])
  const made = after(grown, terminalsToCount(grown, A))
  expect([
    modulesOf(made, A).broken,
    Object.values(made.controllers[A]!.terminals).filter((t) => t!.role === 'station').length,
  ]).toEqual([[], 24])
  expect(modulesOf(after(made, [set('bays', [])]), A).onRecord).toBe(24)
  const less = after(grown, [set('bays', []), ...terminalsToCount(after(grown, [set('bays', [])]), A)])
  // landed ones stay
  expect(Object.values(less.controllers[A]!.terminals).filter((t) => t!.role === 'station')).toHaveLength(18)
})

test('the master terminal: the sum of what hangs there against its limit; a master off for one station is off in the engine', () => {
  expect(masterSums(demo, A)).toMatchObject([
    { sum_A: expect.closeTo(0.25, 9), limit_A: 0.28, over: false, devices: [{ device: 'MV' }, { device: 'PR' }] },
  ])
  const over = after(demo, [set('masterLimit_A', 0.2), set('sensor', { closedBy: 'nothing' })])
  expect(controllerRules(over, A).map((r) => [r.code, r.params.sum_A])).toEqual([
    ['master_over_limit', 0.25],
    ['sensor_open', undefined],
  ])
  const drip = after(demo, [{ do: 'set', in: 'stations', id: 'A-3', field: 'withMaster', value: false }])
  const live = (site: Site) => {
    const r = runningOf(site, [{ controller: A, terminal: '3' as TerminalId }])
    return r.ok ? r.value.live.map((l) => l.terminal) : []
  }
  expect([live(demo), live(drip)]).toEqual([['3', 'MV'], ['3']])
})

test('points of connection: four at most, each with a terminal of its own; the path needs one to be there', () => {
  let site = demo
  for (let n = 2; n <= 4; n++) {
    const more = newPointCommands(site, A, `Supply ${n}`)
    site = after(site, more.ok ? more.value : [])
  }
  expect(Object.values(site.pointsOfConnection).map((p) => p.terminal?.terminal)).toEqual(['MV', 'MV2', 'MV3', 'MV4'])
  expect(newPointCommands(site, A, 'Fifth')).toMatchObject({ ok: false, refusals: [{ code: 'too_many_points' }] })
  const declared = after(site, [
    { do: 'set', in: 'pointsOfConnection', id: 'lake', field: 'reached', value: { masterValve: 'path' } },
  ])
  expect(controllerRules(declared, A).map((r) => r.code)).toEqual(['no_path_here'])
  expect(controllerRules(after(declared, [set('kind', 'hybrid')]), A).map((r) => r.code)).toEqual(['path_jumper'])
})

test('a DC coil on an AC output is refused where it is planned', () => {
  const site = after(demo, [
    {
      do: 'create',
      in: 'coilKinds',
      id: 'dc',
      record: { name: 'Latching', resistance_ohm: 4, current: 'dc_latching' },
    },
  ])
  expect(listCommands(site, [stationRow.parse({ station: 'A:1', box: 'B2', coil: 'Latching' })])).toMatchObject({
    ok: false,
    refusals: [{ code: 'dc_coil_on_ac', params: { terminal: 'A:1' } }],
  })
})

test('the boathouse: two terminals on one lead that feeds a sequencer are known, and spares are counted', () => {
  const S = 'S' as ControllerId
  const door = doorOf(demo, S)
  expect(door.filter((t) => t.landed.length > 0).map((t) => [t.tag, t.landed.map((l) => l.colour), t.unknown])).toEqual(
    [
      ['C', ['white'], 0],
      ['1', ['red'], 0],
      ['2', ['yellow'], 0],
      ['3', ['blue'], 0],
      ['4', ['green'], 0],
      ['5', ['brown'], 0],
      ['6', ['brown'], 0],
    ],
  )
  expect(inventoryOf(demo, S)).toMatchObject({ landedUnknown: 0, capped: 1, loose: 0 })
})

test('two points on one terminal, and a sensor whose rest nobody knows, are told', () => {
  const shared = after(demo, [
    {
      do: 'create',
      in: 'pointsOfConnection',
      id: 'well',
      record: { name: 'Well', terminal: { controller: 'A', terminal: 'MV' } },
    },
    set('sensor', { closedBy: 'sensor' }),
  ])
  expect(
    controllerRules(shared, A).map((r) => [r.code, r.params.point ?? r.params.controller, r.params.other ?? '']),
  ).toEqual([
    ['sensor_rest_unknown', 'A', ''],
    ['terminal_shared', 'Lake pump house', 'Well'],
  ])
  expect(masterSums(shared, A)[0]!.devices).toHaveLength(2)
  expect(terminalsToCount(after(demo, [set('fixedStations', null), set('bays', [])]), A)).toEqual([])
})
