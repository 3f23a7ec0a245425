import { randomPath } from '../../tests/random-path'
import { chance } from '../../standins'
import { applyBatch, Draft, pathsOf, setField, type DeviceId, type Site } from '../site'
import { aidsOf, changeSystem, declareCommands, decodersFor, genericSystem, kindsOf, rodsOf, rodSpot } from '.'

const withSystem = (site: Site) => {
  const path = pathsOf(site)[0]!
  return { ...path, system: path.system! }
}
const priced = (site: Site, decoders: Site['settings']['material']['decoders']): Site => ({
  ...site,
  settings: { ...site.settings, material: { ...site.settings.material, decoders } },
})

test('decoders for a box: the cheapest that trying all finds by a price list, the fewest without one', () => {
  const random = chance(5)
  for (let n = 0; n < 60; n++) {
    const [outputs, most] = [1 + Math.floor(random() * 7), 1 + Math.floor(random() * 4)]
    const prices = new Map(Array.from({ length: most }, (_, i) => [i + 1, 100 + Math.floor(random() * 900)] as const))
    const cost = (kinds: readonly number[]) => kinds.reduce((s, k) => s + prices.get(k)!, 0)
    // Every multiset of at most so many decoders as there are outputs.
    const all = (left: number, largest: number): number[][] =>
      left <= 0
        ? [[]]
        : Array.from({ length: largest }, (_, i) => i + 1).flatMap((k) => all(left - k, k).map((rest) => [k, ...rest]))
    const least = Math.min(...all(outputs, most).map(cost))
    const ours = decodersFor(outputs, most, prices)
    expect([cost(ours), ours.reduce((s, k) => s + k, 0) >= outputs]).toEqual([least, true])
    const plain = decodersFor(outputs, most, new Map())
    expect([plain.length, plain.reduce((s, k) => s + k, 0)]).toEqual([Math.ceil(outputs / most), outputs])
  }
})

test('kinds of a path count its joints once a box, and price what has a price', () => {
  const { site } = randomPath(4, { boxes: 6, lead_m: 0 })
  const list = priced(site, [
    { outputs: 1, cents: 4000 },
    { outputs: 2, cents: 5500 },
  ])
  const plan = kindsOf(list, withSystem(list))
  const outputs = plan.boxes.map((b) => b.outputs)
  expect([plan.boxes.length, plan.now.cuts, plan.byPrice]).toEqual([6, 12, true])
  expect(plan.best.cents).toBe(outputs.reduce((s, n) => s + (n === 1 ? 4000 : 5500), 0))
  expect(kindsOf(priced(site, [{ outputs: 2, cents: 1 }]), withSystem(site)).now.cents === null).toBe(
    outputs.includes(1),
  )
})

test('another system: every decoder goes, those wanted have an output for each of its coils, what does not suit is named', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const { site, path } = randomPath(seed, { boxes: 8 })
    const to = {
      ...genericSystem('always_live', 'Other'),
      outputs: 1,
      coilsPerOutput: 1,
      coilLead_m: 10,
      heavyCoil_A: 0.2,
    }
    const change = changeSystem(site, path, to)
    const coils = Object.values(site.devices).filter((d) => d.kind === 'coil').length
    expect([change.out, change.wanted.reduce((s, w) => s + w.count, 0)]).toEqual([path.decoders.length, coils])
    expect(change.wanted.every((w) => w.outputs === 1 && w.power === 'high')).toBe(true)
    // Leads longer than 10 m, read off the record: a lead cable runs from its decoder’s box to the valve’s.
    const long = Object.entries(site.cables).filter(
      ([id, c]) => id.startsWith('L') && c.stops[1]!.at_m!['value' as never] > 10,
    )
    expect(change.leads.map((l) => l.why).filter((w) => w === 'long')).toHaveLength(long.length)
    expect(change.cables).toHaveLength(Object.keys(site.cables).filter((id) => id.startsWith('K')).length)
    expect(change.weakest === null).toBe(false)
    expect(changeSystem(site, path, { ...to, addresses: { ...to.addresses, from: 1, to: 5 } }).numbersShort).toBe(
      coils - 5,
    )
  }
})

test('a rod is advised where the drawn path is farther than it is long, and judged by where it stands', () => {
  const draft = new Draft('Rods')
    .system('sys', genericSystem('switched', 'One'))
    .place('D', 'cabinet', { position: { value: { x_m: 0, y_m: 0 }, how: 'seen' } })
    .place('B1', 'valve_box', { position: { value: { x_m: 20, y_m: 0 }, how: 'seen' } })
    .place('B2', 'valve_box', { position: { value: { x_m: 20, y_m: 30 }, how: 'seen' } })
    .controller('D', 'D', 0, {
      kind: 'two_wire',
      system: 'sys',
      terminals: { P1: { tag: 'P1', role: 'path', order: 0 }, P2: { tag: 'P2', role: 'path', order: 1 } },
    })
    .cable('K', {
      gauge: { awg: 14 },
      stops: [
        ['D', 0],
        ['B1', 20],
        ['B2', 50],
      ],
      cores: ['red', 'blue'],
    })
    .join('D', ['D:P1', 'K.red>'])
    .join('D', ['D:P2', 'K.blue>'])
    .join('B1', ['K.red<', 'K.red>'])
    .join('B1', ['K.blue<', 'K.blue>'])
    .device('R1', 'rod', 'B1', null, { long_m: 2.4 })
  const site = draft.site()
  const path = pathsOf(site)[0]!
  const spot = rodSpot(site, path, site.devices['R1' as DeviceId]!.place)!
  // The path comes from the west and goes north, so the clear side lies south-east of the box.
  expect(spot.bearing_deg).toBeGreaterThanOrEqual(90)
  expect(spot.bearing_deg).toBeLessThanOrEqual(180)
  expect(spot.clear_m).toBeGreaterThanOrEqual(2.4)
  expect(rodsOf(site, path)[0]!.verdict).toBe('unknown')
  const stood = (x_m: number, y_m: number) => {
    const applied = applyBatch(site, [setField('devices', 'R1' as DeviceId, 'stands', { x_m, y_m })])
    if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
    return rodsOf(applied.value.site, pathsOf(applied.value.site)[0]!)[0]!
  }
  expect(stood(spot.at.x_m, spot.at.y_m).verdict).toBe('clear')
  expect([stood(22, 15).verdict, stood(22, 15).clear_m]).toEqual(['too_near', 2])
})

test('a master valve is advised direct where a screw and the wire allow it, and the set-up that says otherwise is mended', () => {
  const plan = (far_m: number, behind: boolean) => {
    const draft = new Draft('Aids')
      .system('sys', { ...genericSystem('switched', 'One'), jumper: 'on_path' })
      .coilKind('coil', 33, { inrush_A: 0.4, holding_A: 0.23 })
      .place('D', 'cabinet', { position: { value: { x_m: 0, y_m: 0 }, how: 'seen' } })
      .place('B1', 'valve_box', { position: { value: { x_m: far_m, y_m: 0 }, how: 'seen' } })
      .controller('D', 'D', 0, {
        kind: 'two_wire',
        system: 'sys',
        terminals: {
          P1: { tag: 'P1', role: 'path', order: 0 },
          P2: { tag: 'P2', role: 'path', order: 1 },
          C: { tag: 'C', role: 'common', order: 2 },
          MV: { tag: 'MV', role: 'master', order: 3 },
        },
      })
      .cable('K', {
        gauge: { awg: 14 },
        stops: [
          ['D', 0],
          ['B1', far_m],
        ],
        cores: ['red', 'blue', 'green', 'white'],
      })
      .valve('M1', 'B1', 'coil')
      .device('X1', 'decoder', 'B1', null, { address: 7, outputs: 1, drives: 'master' })
      .join('D', ['D:P1', 'K.red>'])
      .join('D', ['D:P2', 'K.blue>'])
      .join('B1', ['K.red<', 'X1.path_1'])
      .join('B1', ['K.blue<', 'X1.path_2'])
      .pointOfConnection('Supply', { name: 'Supply', terminal: { controller: 'D', terminal: 'MV' }, masterValve: 'M1' })
    if (behind) draft.join('B1', ['X1.out_1', 'M1.a']).join('B1', ['X1.common', 'M1.b'])
    else
      draft
        .join('D', ['D:MV', 'K.green>'])
        .join('D', ['D:C', 'K.white>'])
        .join('B1', ['K.green<', 'M1.a'])
        .join('B1', ['K.white<', 'M1.b'])
    const site = draft.site()
    return { site, aid: aidsOf(site, pathsOf(site)[0]!)[0]! }
  }
  expect(plan(40, false).aid).toMatchObject({ wired: 'direct', declared: 'direct', advised: 'direct', jumper: 'none' })
  expect(plan(3000, false).aid).toMatchObject({ advised: 'path', reasons: [{ kind: 'out_of_reach' }] })
  const { site, aid } = plan(40, true)
  expect(aid).toMatchObject({ wired: 'path', declared: 'direct', behind: { address: 7 }, jumper: 'fit' })
  const mended = applyBatch(site, declareCommands(site, aid, 'path'))
  if (!mended.ok) throw new Error(JSON.stringify(mended.refusals))
  expect(aidsOf(mended.value.site, pathsOf(mended.value.site)[0]!)[0]!.declared).toBe('path')
})
