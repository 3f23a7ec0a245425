import { predict, sceneOf } from '../expect'
import { COMMON_METER } from '../record'
import { checkSite, Draft, terminalEnd, type ControllerId, type Site, type TerminalId } from './index'

const two = (wire: (d: Draft) => Draft, meant: [string[], string[]] = [['V1'], ['V2']]): Site =>
  wire(
    new Draft('two')
      .setting('soundSplice_ohm', 0)
      .place('A', 'cabinet')
      .place('B')
      .controller('A', 'A', 2)
      .coilKind('k', 33)
      .coilKind('long', 55)
      .valve('V1', 'B', 'k')
      .valve('V2', 'B', 'long')
      .cable('K', {
        gauge: { awg: 18 },
        stops: [
          ['A', 0],
          ['B', 100],
        ],
        cores: ['red', 'blue', 'white'],
      })
      .join('A', ['A:C', 'K.white>'])
      .join('B', ['K.white<', 'V1.b', 'V2.b'])
      .station('A:1', 'One', meant[0])
      .station('A:2', 'Two', meant[1]),
  ).site()
const landed = (d: Draft) => d.join('A', ['A:1', 'K.red>']).join('A', ['A:2', 'K.blue>'])
const codes = (site: Site) => checkSite(site).map((f) => f.code)
const reads = (site: Site, terminal: string) => {
  const e = predict(
    sceneOf(site),
    {
      kind: 'ohms',
      from: terminalEnd('A' as ControllerId, terminal as TerminalId),
      to: terminalEnd('A' as ControllerId, 'C' as TerminalId),
    },
    COMMON_METER,
  )
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

const found = (site: Site, code: string) => checkSite(site).filter((f) => f.code === code)

test('a lead joined to the common is a dead short, and said so before anything is landed on it', () => {
  const site = two((d) =>
    d.join('A', ['A:2', 'K.blue>']).join('A', ['A:1', 'K.red>']).join('B', ['K.red<', 'K.blue<', 'V1.a', 'V2.a']),
  )
  expect(codes(site)).toEqual(expect.arrayContaining(['extra_valve']))
  const short = new Draft('short')
    .place('A', 'cabinet')
    .place('B')
    .controller('A', 'A', 1)
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 50],
      ],
      cores: ['red', 'white'],
    })
    .join('A', ['A:C', 'K.white>'])
    .join('A', ['A:1', 'K.red>'])
    .join('B', ['K.red<', 'K.white<'])
    .site()
  expect(found(short, 'lead_on_common')).toMatchObject([{ weight: 'wrong', params: { terminal: 'A:1' } }])
  expect(reads(short, '1')).toEqual(expect.closeTo(2 * 50 * 0.0209478 + 0.03, 3))
})

test('a latching coil on an AC output, a core of the common’s colour as a lead, a part known to be open', () => {
  const site = new Draft('odd')
    .place('A', 'cabinet')
    .place('B')
    .controller('A', 'A', 1)
    .coilKind('dc', 4, { current: 'dc_latching' })
    .valve('V1', 'B', 'dc')
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 50],
      ],
      cores: ['white', 'black'],
    })
    .core('K', 'black', { condition: { state: 'open', note: 'dug through' } })
    .join('A', ['A:C', 'K.black>'])
    .join('A', ['A:1', 'K.white>'])
    .join('B', ['K.white<', 'V1.a'])
    .join('B', ['K.black<', 'V1.b'])
    .station('A:1', 'One', ['V1'])
    .site()
  expect(codes(site)).toEqual(expect.arrayContaining(['dc_coil_on_ac', 'common_colour_on_lead']))
  expect(reads(site, '1')).toBe('open')
})

test('ends without a joint, lengths, sizes and coils that are not on record are gaps, not faults', () => {
  const loose = two((d) =>
    landed(d)
      .join('B', ['K.blue<', 'V2.a'])
      .cable('X', {
        gauge: null,
        stops: [
          ['A', 0],
          ['B', null],
        ],
        cores: ['grey'],
      })
      .valve('V3', 'B', null),
  )
  expect(codes(loose)).toEqual(
    expect.arrayContaining(['valve_not_wired', 'ends_unjoined', 'length_unknown', 'gauge_unknown', 'coil_unknown']),
  )
  expect(checkSite(loose).every((f) => f.weight === 'gap')).toBe(true)
})

test('the worst comes first', () => {
  const weights = checkSite(
    two((d) =>
      landed(d)
        .join('B', ['K.red<', 'V2.a'])
        .join('B', ['K.blue<', 'V1.a'])
        .cable('X', {
          gauge: null,
          stops: [
            ['A', 0],
            ['B', null],
          ],
          cores: ['grey'],
        }),
    ),
  ).map((f) => f.weight)
  expect(weights).toEqual(
    [...weights].sort((a, b) => ['wrong', 'doubt', 'gap'].indexOf(a) - ['wrong', 'doubt', 'gap'].indexOf(b)),
  )
  expect(weights[0]).toBe('wrong')
})
