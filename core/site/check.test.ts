import { predict, sceneOf } from '../expect'
import { COMMON_METER } from '../record'
import { checkSite, Draft, terminalEnd, type ControllerId, type Site, type TerminalId } from './index'

const two = (wire: (d: Draft) => Draft, meant: [string[], string[]] = [['V1'], ['V2']]): Site => wire(new Draft('two').setting('soundSplice_ohm', 0)
  .place('A', 'cabinet').place('B').controller('A', 'A', 2).coilKind('k', 33).coilKind('long', 55).valve('V1', 'B', 'k').valve('V2', 'B', 'long')
  .cable('K', { gauge: { awg: 18 }, stops: [['A', 0], ['B', 100]], cores: ['red', 'blue', 'white'] })
  .join('A', ['A:C', 'K.white>']).join('B', ['K.white<', 'V1.b', 'V2.b'])
  .station('A:1', 'One', meant[0]).station('A:2', 'Two', meant[1])).site()
const landed = (d: Draft) => d.join('A', ['A:1', 'K.red>']).join('A', ['A:2', 'K.blue>'])
const codes = (site: Site) => checkSite(site).map((f) => f.code)
const reads = (site: Site, terminal: string) => {
  const e = predict(sceneOf(site), { kind: 'ohms', from: terminalEnd('A' as ControllerId, terminal as TerminalId), to: terminalEnd('A' as ControllerId, 'C' as TerminalId) }, COMMON_METER)
  return e.kind === 'ohms' ? e.expected_ohm : e.kind
}
const loop = 2 * 100 * 0.0209478

test('as meant: nothing to say, and each terminal reads its own coil', () => {
  const site = two((d) => landed(d).join('B', ['K.red<', 'V1.a']).join('B', ['K.blue<', 'V2.a']))
  expect(codes(site)).toEqual([])
  expect([reads(site, '1'), reads(site, '2')]).toEqual([expect.closeTo(33 + loop, 3), expect.closeTo(55 + loop, 3)])
})

test('a swapped pair is named once, and predicted as it is wired', () => {
  const site = two((d) => landed(d).join('B', ['K.red<', 'V2.a']).join('B', ['K.blue<', 'V1.a']))
  expect(codes(site)).toEqual(['swapped_pair'])
  expect(reads(site, '1')).toEqual(expect.closeTo(55 + loop, 3))
})

test('two valves on one lead: in order when meant, told when not; side by side on the meter', () => {
  const doubled = (d: Draft) => landed(d).join('B', ['K.red<', 'V1.a', 'V2.a']).join('B', ['K.blue<'])
  expect(codes(two(doubled, [['V1', 'V2'], []]))).toEqual(['no_valve_named'])
  expect(codes(two(doubled)).sort()).toEqual(['extra_valve', 'valve_elsewhere'])
  expect(reads(two(doubled), '1')).toEqual(expect.closeTo(1 / (1 / 33 + 1 / 55) + loop, 3))
  expect(reads(two(doubled), '2')).toBe('open')
})

test('a lead on the common, a latching coil, unknown ends, lengths and sizes are each found', () => {
  expect(codes(two((d) => landed(d).join('B', ['K.red<', 'V1.a', 'K.blue<']).join('A', ['V2.a'].length ? ['earth'] : [])))).toContain('valve_not_wired')
  expect(codes(two((d) => d.join('A', ['A:1', 'K.red>']).join('A', ['A:2', 'K.blue>']).join('B', ['K.blue<', 'V2.a']).coilKind('dc', 4, { current: 'dc_latching' })
    .valve('V3', 'B', 'dc').join('B', ['K.red<', 'V3.a']).join('B', ['V3.b'])))).toEqual(expect.arrayContaining(['valve_not_wired']))
  const loose = two((d) => landed(d).join('B', ['K.blue<', 'V2.a']).cable('X', { gauge: null, stops: [['A', 0], ['B', null]], cores: ['grey'] }))
  expect(codes(loose)).toEqual(expect.arrayContaining(['valve_not_wired', 'ends_unjoined', 'length_unknown', 'gauge_unknown']))
})
