import { randomPath } from '../../tests/random-path'
import { chance } from '../../standins'
import { readPathLines, readRegister, registerRows } from '../formats'
import { copperFactor, maximum_ohmPerM, nominal_ohmPerM } from '../quantity'
import {
  applyBatch,
  createRecord,
  Draft,
  getOrThrow,
  outputsOf,
  pathsOf,
  setField,
  type CableId,
  type ControllerId,
  type DeviceId,
  type Site,
  type SystemId,
} from '../site'
import {
  addressCommands,
  balanced,
  beginPathCommands,
  brokenRegister,
  convert,
  genericSystem,
  giveAddresses,
  layoutOf,
  orderSheet,
  outputsAnswering,
  outputsOn,
  pathReach,
  planPath,
  pathVolts,
  secondWays,
  worstFor,
} from '.'

const SYSTEM = genericSystem('switched', 'System one')
const changed = (site: Site, commands: Parameters<typeof applyBatch>[1]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const withPath = (site: Site) => {
  const path = pathsOf(site)[0]!
  return { ...path, system: path.system! }
}

test('volts along a tree are what adding up currents from the ends inward gives, with coils on leads of their own', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const { site, path } = randomPath(seed, { boxes: 5 + seed })
    const layout = layoutOf(site, path)
    const { idle_A, active_A, path_V, source_ohm } = path.system!
    const output = outputsOn(site, path)[seed % 5]!
    const on = [{ output, face: 'inrush' as const }]
    const ours = pathVolts(site, path, 'constant_current', on)
    if (!ours.ok) throw new Error(JSON.stringify(ours.refusals))
    const draw = (decoder: DeviceId) => (decoder === output.decoder ? active_A! + 0.4 * output.coils.length : idle_A!)
    const below_A = layout.spots.map((s) => s.decoders.reduce((sum, d) => sum + draw(d), 0))
    for (const spot of [...layout.outward].reverse()) {
      const leg = layout.parent[spot] === null ? null : layout.legs[layout.parent[spot]!]!
      if (leg) below_A[leg.a === spot ? leg.b : leg.a]! += below_A[spot]!
    }
    const volts = [path_V! - source_ohm * below_A[0]!]
    const half_ohm = site.settings.soundSplice_ohm / 2
    for (const spot of layout.outward.slice(1)) {
      const leg = layout.legs[layout.parent[spot]!]!
      const before = leg.a === spot ? leg.b : leg.a
      const gauge = getOrThrow(site.cables, leg.cable).gauge!.value
      const ohm = nominal_ohmPerM(gauge) * leg.length_m
      // A joint holds each end by half a joint’s ohms: two on the way in, but one at the controller’s clamp.
      const grips = before === 0 ? 1 : 2
      volts[spot] = volts[before]! - 2 * below_A[spot]! * (ohm + grips * half_ohm)
    }
    for (const { decoder, volt_V } of ours.value.decoders) {
      const spot = layout.spots.findIndex((s) => s.decoders.includes(decoder))
      expect(volt_V).toBeCloseTo(volts[spot]! - 2 * draw(decoder) * half_ohm, 4)
    }
    expect(ours.value.line_A).toBeCloseTo(below_A[0]!, 9)
    expect(ours.value.coils.every((c) => c.current_A === 0.4 && c.volt_V < volts[0]!)).toBe(true)
  }
})
test('a break leaves those beyond it without volts and without current; a leg that is tied to the other leaves nobody enough', () => {
  const { site, path } = randomPath(3, { boxes: 6, back: 1 })
  const broken = changed(site, [
    setField('cables', 'K3' as CableId, 'condition', { state: 'open', since: null, note: '' }),
  ])
  const there = pathVolts(broken, pathsOf(broken)[0]!, 'constant_current', [])
  if (!there.ok) throw new Error('no volts')
  const dead = there.value.decoders.filter((d) => d.volt_V === 0).map((d) => d.decoder)
  expect(dead.sort()).toEqual(['X3', 'X4', 'X5'])
  expect(there.value.line_A).toBeCloseTo(3 * path.system!.idle_A!, 9)
})

test('no two decoders are given one number, reserved ones are left, box mates follow each other, and what is wrong is said', () => {
  for (let seed = 1; seed <= 30; seed++) {
    const { site } = randomPath(seed, { boxes: 12, exits: 2 })
    const bare = changed(
      site,
      Object.keys(site.devices).flatMap((id) =>
        site.devices[id as DeviceId]!.kind === 'decoder' ? [setField('devices', id as DeviceId, 'address', null)] : [],
      ),
    )
    const profile = {
      ...bare.systems['sys' as never]!,
      polarised: false,
      addresses: { from: 1, to: 60, reserved: [4, 9], duals: seed % 2 ? 'own' : 'next', pumpsFirst: false },
    }
    const ruled = { ...bare, systems: { sys: profile } } as Site
    const { given, none } = giveAddresses(ruled, withPath(ruled))
    expect(none).toEqual([])
    const all = given.flatMap((g) => g.addresses)
    expect(new Set(all).size).toBe(all.length)
    expect(all.some((n) => [4, 9].includes(n))).toBe(false)
    const numbered = changed(ruled, addressCommands(ruled, withPath(ruled), given))
    expect(brokenRegister(numbered, withPath(numbered))).toEqual([])
    expect(
      outputsOf(numbered)
        .map((o) => o.address)
        .sort(),
    ).toEqual([...all].sort())
    expect(orderSheet(numbered, withPath(numbered)).reduce((sum, l) => sum + l.count, 0)).toBe(given.length)
    const [one, two] = given.map((g) => g.decoder) as [DeviceId, DeviceId]
    const twice = changed(numbered, [setField('devices', two, 'address', numbered.devices[one]!.address)])
    expect(brokenRegister(twice, withPath(twice)).map((r) => r.code)).toContain('address_twice')
    const both = outputsAnswering(twice, withPath(twice), [numbered.devices[one]!.address!])
    expect(both.ok && both.value.map((o) => o.output.decoder).sort()).toEqual([one, two].sort())
  }
})

test('legs of a conversion: as even as trying every division finds, 200 cables; what is broken or touches is left out', () => {
  const random = chance(11)
  for (let n = 0; n < 200; n++) {
    const count = 2 + Math.floor(random() * 8)
    const cores = Array.from({ length: count }, () => [0.0209, 0.0132, 0.00829][Math.floor(random() * 3)]!)
    const g = cores.map((r) => 1 / r)
    const loop = (mask: number) => {
      const [a, b] = [0, 1].map((side) => g.reduce((s, x, i) => s + (((mask >> i) & 1) === side ? x : 0), 0))
      return 1 / a! + 1 / b!
    }
    let least = Infinity
    for (let mask = 1; mask < 2 ** count - 1; mask++) least = Math.min(least, loop(mask))
    expect(loop(balanced(g).reduce((mask, first, i) => mask | (first ? 1 << i : 0), 0))).toBeCloseTo(least, 9)
  }
  const draft = new Draft('Old').place('A', 'cabinet').controller('A', 'A', 3)
  draft
    .place('B1')
    .place('B2')
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B1', 60],
        ['B2', 130],
      ],
      cores: ['red', 'blue', 'green', 'white', 'black', 'brown'],
    })
  draft.core('K', 'green', { condition: { state: 'open', since: null, note: '' } })
  const old = convert(draft.site(), 'K' as CableId, SYSTEM, 4)
  expect([old.legs.map((l) => l.length).sort(), old.out]).toEqual([[2, 3], [{ core: 'green', why: 'broken' }]])
  expect(old.loop_ohm).toBeCloseTo(130 * 0.0209478 * (1 / 3 + 1 / 2), 4)
  expect(old.boxes.map((b) => [b.place, ...b.ends].join(' ')).sort()).toEqual(['B1 7 5', 'B2 4 3'])
  expect([old.obstacles, old.far_V! > 18]).toEqual([[], true])
  const twisted = convert(draft.site(), 'K' as CableId, genericSystem('always_live', 'Two'), 4)
  expect(twisted.obstacles).toEqual([{ kind: 'twisted_only' }])
})

test('reach: at the reach the far decoder has its least volts, a metre further it has not; where no figure is on record, none is made up', () => {
  const { site } = randomPath(2, { boxes: 4 })
  for (const { gauge, reach_m } of pathReach(site, SYSTEM, { decoders: 12, on: 1, coils_A: 0.4 })!) {
    const far_V = (l_m: number) =>
      SYSTEM.path_V! * (1 - site.settings.sizing.mainsLow_ratio) -
      (11 * SYSTEM.idle_A! + SYSTEM.active_A! + 0.4) *
        (SYSTEM.source_ohm + 2 * l_m * maximum_ohmPerM(gauge) * copperFactor(site.settings.sizing.hottest_C))
    expect([far_V(reach_m!) >= 18 - 1e-9, far_V(reach_m! + 1) >= 18]).toEqual([true, false])
  }
  expect(pathReach(site, { ...SYSTEM, idle_A: null }, { decoders: 1, on: 1, coils_A: 0.4 })).toBeNull()
  const blank = { ...site, systems: { sys: { ...site.systems['sys' as never]!, minimum_V: null } } } as Site
  const refused = pathVolts(blank, pathsOf(blank)[0]!, 'constant_current', [])
  expect(!refused.ok && refused.refusals.map((r) => [r.code, ...r.path])).toEqual([
    ['ask_the_sheet', 'systems', 'sys', 'minimum_V'],
  ])
})

test('what a profile says of polarity, of heavy coils and of DC ones is held against what is on record', () => {
  const { site } = randomPath(5, { boxes: 8 })
  const judged = (more: object, coil: object = {}) => {
    const of = {
      ...site,
      systems: { sys: { ...site.systems['sys' as never]!, polarised: false, ...more } },
      coilKinds: { coil: { ...site.coilKinds['coil' as never]!, ...coil } },
    } as Site
    return brokenRegister(of, withPath(of)).map((r) => r.code)
  }
  const coils = outputsOf(site).flatMap((o) => o.coils).length
  expect(judged({})).toEqual([])
  const turned = judged({ polarised: true }).length
  expect(turned > 0 && turned < 8).toBe(true)
  expect(judged({ heavyCoil_A: 0.2 })).toEqual(Array(coils).fill('coil_heavy'))
  expect(judged({}, { current: 'dc_latching' })).toEqual(Array(coils).fill('coil_dc_on_path'))
})

test('two systems on one path are refused, by whichever change they would come together', () => {
  const { site } = randomPath(4, { boxes: 3 })
  const other = createRecord('systems', 'other', genericSystem('always_live', 'System two'))
  const foreign = applyBatch(site, [other, setField('devices', 'X1' as DeviceId, 'system', 'other' as SystemId)])
  expect(!foreign.ok && foreign.refusals.map((r) => r.code)).toEqual(['decoder_of_another'])
  const own = changed(site, [other, setField('devices', 'X1' as DeviceId, 'system', 'sys' as SystemId)])
  const turned = applyBatch(own, [setField('controllers', 'D' as ControllerId, 'system', 'other' as SystemId)])
  expect(!turned.ok && turned.refusals[0]).toMatchObject({ params: { is: 'System one', path: 'System two' } })
})

const LIST = `box, metres, valves, from
T1, 6, Rose bed
T2, 40, Lawn east + Lawn west
T3, 52, Hedge
T4, 30, Steps, T2
T5, 61, Ferns + Pond + Bank`

test('a pasted list becomes a path: cable by branch, decoders by box, numbers, stations, one colour to one side, and it works', () => {
  const draft = new Draft('New').place('D', 'cabinet').controller('D', 'D', 0, { terminals: {} })
  const bare = changed(draft.site(), beginPathCommands(draft.site(), 'D' as ControllerId, SYSTEM))
  const rows = readPathLines(LIST, { length: 'm', temperature: 'C' })
  if (!rows.ok) throw new Error(JSON.stringify(rows.refusals))
  const planned = planPath(bare, 'D' as ControllerId, rows.value, { awg: 14 })
  if (!planned.ok) throw new Error(JSON.stringify(planned.refusals))
  const site = changed(bare, planned.value)
  const path = withPath(site)
  expect(Object.values(site.cables).map((c) => c.stops.map((s) => s.place).join(' '))).toEqual([
    'D T1 T2 T3',
    'T2 T4 T5',
  ])
  expect(path.decoders.length).toBe(6)
  expect(path.decoders.every((d) => d.legs !== null)).toBe(true)
  expect(
    Object.values(site.stations)
      .map((s) => `${s.address} ${s.name}`)
      .sort(),
  ).toEqual(['1 Rose bed', '2 Lawn east', '3 Lawn west', '4 Steps', '5 Hedge', '6 Ferns', '7 Pond', '8 Bank'].sort())
  expect(brokenRegister(site, path)).toEqual([])
  const volts = pathVolts(site, path, 'constant_current', [])
  expect(volts.ok && volts.value.decoders.every((d) => d.enough)).toBe(true)
  for (const output of outputsOn(site, path)) expect(output.coils.length).toBe(1)
  // More of it from a box that is there, then a list that cannot be: nothing is changed.
  const more = readPathLines('T6, 20, Apiary, T3', { length: 'm', temperature: 'C' })
  const grown = more.ok ? planPath(site, 'D' as ControllerId, more.value, null) : more
  expect(grown.ok && pathsOf(changed(site, grown.value))[0]!.decoders.length).toBe(7)
  const wrong = planPath(site, 'D' as ControllerId, [{ line: 1, box: 'T9', from: 'T8', length_m: 1, valves: [] }], null)
  expect(!wrong.ok && wrong.refusals[0]!.code).toBe('no_path_at_box')
  // A number that a station goes by is kept for the decoder of its valves, and given to nobody else.
  const [steps] = path.decoders.filter((d) => site.devices[d.device]!.address === 4)
  const without = changed(site, [setField('devices', steps!.device, 'address', null)])
  expect(giveAddresses(without, withPath(without)).given).toEqual([{ decoder: steps!.device, addresses: [4] }])
  const next = readPathLines('T7, 20, Shed', { length: 'm', temperature: 'C' })
  const beside = next.ok ? planPath(without, 'D' as ControllerId, next.value, null) : next
  expect(
    beside.ok &&
      Object.values(changed(without, beside.value).stations)
        .map((s) => s.address)
        .sort(),
  ).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9])
  // The register goes out and comes back with two decoders changed over; their stations go along.
  const table = registerRows(site, path).map((row) => row.map(String))
  const other = table.map((row) =>
    row[0] === '1' ? ['5', ...row.slice(1)] : row[0] === '5' ? ['1', ...row.slice(1)] : row,
  )
  const back = readRegister(other, site, path)
  if (!back.ok) throw new Error(JSON.stringify(back.refusals))
  const after = changed(site, addressCommands(site, path, back.value))
  expect([
    brokenRegister(after, withPath(after)),
    Object.values(after.stations).find((s) => s.name === 'Hedge')!.address,
  ]).toEqual([[], 1])
  expect(
    readRegister(
      [
        ['number', 'decoder'],
        ['x', 'Q9'],
      ],
      site,
      path,
    ),
  ).toMatchObject({
    refusals: [{ code: 'decoder_unknown' }, { code: 'not_within' }],
  })
})

test('a second way out: of the same length and size it halves what the wire loses, and it is never a loss', () => {
  const waysOn = (boxes: number, seed: number) => {
    const { site, path } = randomPath(seed, { boxes, exits: 1 })
    const [ways, base] = [secondWays(site, path, []), pathVolts(site, path, 'constant_current', [], worstFor(site))]
    if (!ways.ok || !base.ok) throw new Error('volts')
    return { ways: ways.value, base: base.value }
  }
  const { ways, base } = waysOn(1, 5)
  const lost_V = base.stretches.reduce((sum, s) => sum + s.volt_V, 0)
  expect(ways).toHaveLength(1)
  expect(ways[0]!.gain_V).toBeCloseTo(lost_V / 2, 9)
  for (let seed = 1; seed <= 6; seed++) {
    const { ways, base } = waysOn(8, seed)
    expect(ways).toHaveLength(8)
    expect(Math.min(...ways.map((w) => w.gain_V))).toBeGreaterThan(-1e-9)
    const best = ways[0]!
    expect(best.weakest_V - best.gain_V).toBeCloseTo(Math.min(...base.decoders.map((d) => d.volt_V)), 9)
  }
})
