import fc from 'fast-check'
import { demoProperty } from '../../demo/quarry-lake'
import { sayRefusal, type Speaker } from '../../words'
import { translateHere } from '../../words/speaker'
import { seeded } from '../../tests/random-site'
import { expectSweep, sceneOf } from '../expect'
import { readStationLines, readStationList, writeStationList } from '../formats'
import { COMMON_METER } from '../record'
import { marginsOf } from '../sizing'
import { applyBatch, checkSite, emptySite, type ControllerId, type Site, type StationId } from '../site'
import {
  cellCommands,
  listCommands,
  newRunCommands,
  readWay,
  removalCommands,
  runCommands,
  sizeCommands,
  wayCommands,
  wayText,
  type Cell,
  rowsOf,
  stationRow,
  type StationRow,
} from './index'

const row = (station: string, more: Partial<StationRow> = {}) => stationRow.parse({ station, ...more })
function listed(site: Site, rows: readonly StationRow[]): Site {
  const commands = listCommands(site, rows)
  if (!commands.ok) throw new Error(JSON.stringify(commands.refusals))
  const applied = applyBatch(site, commands.value)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const told = (site: Site) =>
  rowsOf(site).map(({ station, name, zone, cable, box, at_m, coil, colour }) => ({
    station,
    name,
    zone,
    cable,
    box,
    at_m,
    coil,
    colour,
  }))

const twelve = Array.from({ length: 12 }, (_, i) =>
  row(String(i + 1), { name: `Bed ${i + 1}`, box: `B${1 + (i >> 1)}`, at_m: 20 + 25 * (i >> 1), coil: '33' }),
)

test('a pasted list becomes a property that computes: every thread read, every station with its margin, nothing wrong or loose', () => {
  for (const kind of ['multicore', 'single'] as const) {
    const site = listed(emptySite('New'), [
      ...twelve.map((r) => ({ ...r, kind, gauge: { awg: 16 } })),
      row('MV', { name: 'Master', box: 'B1', at_m: 20, coil: '52' }),
      row('relay', { coil: '180' }),
    ])
    expect(
      checkSite(site)
        .filter((f) => f.code !== 'gauge_unknown')
        .map((f) => [f.code, f.params]),
    ).toEqual([])
    const kinds = expectSweep(sceneOf(site), 'A' as ControllerId, COMMON_METER).map((e) => e.expectation.kind)
    expect(kinds).toEqual(Array.from({ length: 13 }, () => 'ohms'))
    const { threads, unwired } = marginsOf(site)
    expect([threads.length, unwired, threads[0]!.volt_V > 10]).toEqual([14, [], true])
    expect(Object.keys(site.cables)).toHaveLength(kind === 'multicore' ? 1 : 14)
  }
})

test('what is not known stays so: a name alone is intent alone; a box without a distance has none', () => {
  const site = listed(emptySite('Unknown'), [row('1', { name: 'Somewhere' }), row('2', { box: 'B1' })])
  expect(told(site)).toEqual([
    { station: '1', name: 'Somewhere', zone: '', cable: null, box: null, at_m: null, coil: null, colour: null },
    { station: '2', name: '', zone: '', cable: 'K1', box: 'B1', at_m: null, coil: null, colour: null },
  ])
  expect(checkSite(site).map((f) => f.code)).toEqual(
    expect.arrayContaining(['no_valve_named', 'coil_unknown', 'length_unknown', 'gauge_unknown']),
  )
})

test('rows in any order, then moved, renamed and taken away at random: the wiring stays whole and says what the rows say', () => {
  for (let seed = 1; seed <= 25; seed++) {
    const random = seeded(seed)
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
    const boxes = Array.from({ length: 5 }, (_, i) => ({
      box: `B${i + 1}`,
      at_m: 15 + 30 * i + Math.round(random() * 20),
    }))
    const kind = pick(['multicore', 'single'] as const)
    const want = new Map<string, StationRow>()
    let site = emptySite(`seed ${seed}`)
    for (let step = 0; step < 14; step++) {
      const station = String(1 + Math.floor(random() * 8))
      const there = rowsOf(site).find((r) => r.station === station)
      if (there?.stationId && random() < 0.2) {
        const applied = applyBatch(site, removalCommands(site, there.stationId as StationId))
        if (!applied.ok) throw new Error(`seed ${seed}: ${JSON.stringify(applied.refusals)}`)
        site = applied.value.site
        want.delete(station)
        continue
      }
      const next = row(station, { name: `Name ${step}`, ...pick(boxes), kind, cable: 'K1', coil: '33' })
      site = listed(site, [next])
      want.set(station, next)
    }
    expect([seed, checkSite(site).filter((f) => f.weight === 'wrong' || f.code === 'ends_unjoined')]).toEqual([
      seed,
      [],
    ])
    expect(told(site).map((r) => [seed, r.station, r.name, r.box, r.at_m])).toEqual(
      [...want.values()]
        .sort((a, b) => Number(a.station) - Number(b.station))
        .map((r) => [seed, r.station, r.name, r.box, r.at_m]),
    )
    expect(marginsOf(site).unwired).toEqual([])
  }
})

test('a list of the demo changes nothing; a wrong row refuses the whole, naming row and column', () => {
  const { site } = demoProperty()
  expect(
    listCommands(
      site,
      rowsOf(site).map(({ controller: _c, terminal: _t, stationId: _s, device: _d, run: _r, place: _p, ...r }) => r),
    ),
  ).toEqual({ ok: true, value: [] })
  const wrong = listCommands(site, [row('Q:1', { box: 'B2' }), row('A:C'), row('A:1', { cable: 'L13', box: 'B2' })])
  expect(wrong.ok ? [] : wrong.refusals.map((r) => [r.code, ...r.path])).toEqual([
    ['no_such_controller', 'row 1', 'station'],
    ['common_is_no_output', 'row 2', 'station'],
    ['not_a_run', 'row 3', 'cable'],
  ])
})

test('a list is read as it comes: bare lines, spreadsheet cells, CSV; written out it reads back the same', () => {
  const { settings } = emptySite('x')
  const read = (text: string, taken: string[] = []) => {
    const r = readStationList(text, settings, taken)
    return r.ok
      ? r.value.map(({ station, name, box, at_m, coil }) => [
          station,
          name,
          box,
          at_m && Math.round(at_m * 100) / 100,
          coil,
        ])
      : r.refusals.map((f) => [f.code, ...f.path])
  }
  expect(read('1 Rose bed\n2. Lawn\n\nMV Main')).toEqual([
    ['1', 'Rose bed', null, null, null],
    ['2', 'Lawn', null, null, null],
    ['MV', 'Main', null, null, null],
  ])
  expect(read('Rose bed\nLawn', ['1'])).toEqual([
    ['2', 'Rose bed', null, null, null],
    ['3', 'Lawn', null, null, null],
  ])
  expect(read('Rose bed\tB1\t150\t33\nLawn\tB2\t60 m\t')).toEqual([
    ['1', 'Rose bed', 'B1', 45.72, '33'],
    ['2', 'Lawn', 'B2', 60, null],
  ])
  expect(read('name,station,at\n"Bed, left",4,')).toEqual([['4', 'Bed, left', null, null, null]])
  expect(
    [
      read(''),
      read('station,colur\n1,red'),
      read('station;at\n1;far'),
      read('1 A\n1 B'),
      read('station,kind\n1,rope'),
    ].map((r) => r[0]![0]),
  ).toEqual(['empty_list', 'unknown_column', 'not_a_length', 'station_twice', 'not_one_of'])
  const { site } = demoProperty()
  const back = readStationList(writeStationList(site), site.settings)
  expect(back.ok && listCommands(site, back.value)).toEqual({ ok: true, value: [] })
})

test('each line is read by its own shape; what is not understood is told beside what can be taken', () => {
  const { settings } = emptySite('x')
  const text = '7\tRose bed\tV4\n8 Orchard row, box V5\nQ:Q:1\tHedge\tV6\n9\tLawn\tV7\tfar away\n7\tAgain\tV8\n'
  const read = readStationLines(text, settings)
  if (!read.ok) throw new Error('the list was refused as a whole')
  expect(read.value.rows.map((r) => [r.station, r.name, r.box])).toEqual([
    ['7', 'Rose bed', 'V4'],
    ['8', 'Orchard row', 'V5'],
  ])
  expect(read.value.refused.map((l) => [l.line, ...l.refusals.map((r) => r.code)])).toEqual([
    [3, 'bad_value'],
    [4, 'not_a_length'],
    [5, 'station_twice'],
  ])
  expect(read.value.left).toBe('Q:Q:1\tHedge\tV6\n9\tLawn\tV7\tfar away\n7\tAgain\tV8')
  expect(readStationList(text, settings)).toMatchObject({ ok: false })
})

test('a cell written anew changes what it says and nothing else; emptied, it is unknown again; a bad one says why', () => {
  let site = listed(emptySite('Cells'), twelve)
  const write = (station: string, cell: Cell, text: string) => {
    const commands = cellCommands(
      site,
      rowsOf(site).find((r) => r.station === station)!,
      cell,
      text,
    )
    if (!commands.ok) return commands.refusals.map((r) => r.code)
    const applied = applyBatch(site, commands.value)
    if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
    site = applied.value.site
    return told(site).find((r) => r.station === station)![cell]
  }
  expect([
    write('3', 'name', 'Roses'),
    write('3', 'box', 'B5'),
    write('3', 'coil', 'Low-draw'),
    write('3', 'colour', 'blue'),
    write('3', 'at_m', '130 m'),
  ]).toEqual(['Roses', 'B5', 'Low-draw', 'blue', 130])
  expect(
    told(site)
      .filter((r) => r.box === 'B5')
      .map((r) => [r.station, r.at_m]),
  ).toEqual([
    ['3', 130],
    ['9', 130],
    ['10', 130],
  ])
  expect([
    write('3', 'at_m', ''),
    write('3', 'coil', ''),
    write('3', 'colour', ''),
    write('3', 'box', ''),
    write('3', 'at_m', '5'),
    write('4', 'at_m', 'far'),
  ]).toEqual([null, null, null, null, ['no_box_yet'], ['not_a_length']])
  expect(told(site).find((r) => r.station === '9')!.at_m).toBe(null)
  expect(checkSite(site).filter((f) => f.weight === 'wrong' || f.code === 'ends_unjoined')).toEqual([])
  const sizes = sizeCommands(site, rowsOf(site)[0]!.run!, '14', false)
  expect(sizes.ok && sizes.value).toEqual([
    { do: 'set', in: 'cables', id: 'K1', field: 'gauge', value: { value: { awg: 14 }, how: 'assumed', on: null } },
  ])
})

test('a run in words: boxes in order with their distances, read, written, extended; new runs beside it', () => {
  let site = listed(emptySite('Runs'), twelve)
  const take = (commands: ReturnType<typeof wayCommands>) => {
    const applied = applyBatch(site, commands)
    if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
    site = applied.value.site
  }
  const K1 = rowsOf(site)[0]!.run!
  const metres = (m: number) => String(m)
  expect(wayText(site, K1, metres)).toBe('B1 20, B2 45, B3 70, B4 95, B5 120, B6 145')
  const way = readWay('B1 20, J1 30, B2 45 m, B9 170; B10', 'm')
  if (!way.ok) throw new Error(JSON.stringify(way.refusals))
  take(wayCommands(site, K1, way.value))
  expect(wayText(site, K1, metres)).toBe('B1 20, J1 30, B2 45, B3 70, B4 95, B5 120, B6 145, B9 170, B10')
  const laid = newRunCommands(site, 'A' as ControllerId, 'North', 'single', '12', [
    { box: 'N1', at_m: 40 },
    { box: 'N2', at_m: 90 },
  ])
  if (!laid.ok) throw new Error(JSON.stringify(laid.refusals))
  take(laid.value)
  site = listed(site, [row('13', { box: 'N1', cable: 'North' }), row('14', { box: 'N2', cable: 'North' })])
  expect(
    told(site)
      .slice(-2)
      .map((r) => [r.cable, r.box, r.at_m]),
  ).toEqual([
    ['North', 'N1', 40],
    ['North', 'N2', 90],
  ])
  expect(checkSite(site).filter((f) => f.weight === 'wrong' || f.code === 'ends_unjoined')).toEqual([])
  expect(
    [
      readWay('', 'm'),
      readWay('B1 far', 'm'),
      readWay('B2 50, B1 30', 'm'),
      newRunCommands(site, 'A' as ControllerId, 'North', 'single', '', []),
      runCommands(site, K1, 'tag', 'North'),
      runCommands(site, K1, 'warmer_K', 'hot'),
    ].map((r) => (r.ok ? '' : r.refusals[0]!.code)),
  ).toEqual(['no_boxes', 'not_a_length', 'stop_before', 'tag_twice', 'tag_twice', 'not_warmer'])
})

test('lists damaged in any way are read or refused in sentences; what is read can be taken in; nothing throws', () => {
  const speaker: Speaker = { t: translateHere, figure: (_, value) => String(value), wire: () => null, gauge: () => '' }
  const good = writeStationList(demoProperty().site).split('\n')
  const piece = fc.constantFrom(
    '',
    ',',
    '\t',
    ';',
    '"',
    '\n',
    'MV',
    'relay',
    '0',
    '-3',
    '1e9',
    '46 m',
    'Ω',
    '\u0000',
    '\ud800',
    'A:1',
    'Q:9',
    ':::',
    '  ',
    'name',
    'station,at',
    "'; --",
    'x'.repeat(200),
  )
  const site = demoProperty().site
  let [read, refused] = [0, 0]
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(good.length), fc.nat(60), piece), { minLength: 1, maxLength: 6 }),
      fc.boolean(),
      (edits, bare) => {
        const lines = bare ? [] : [...good]
        for (const [line, at, text] of edits)
          lines[line] = `${(lines[line] ?? '').slice(0, at)}${text}${(lines[line] ?? '').slice(at + 1)}`
        const outcome = readStationList(Array.from(lines, (l) => l ?? '').join('\n'), site.settings)
        const commands = outcome.ok ? listCommands(site, outcome.value) : outcome
        if (!commands.ok) {
          refused++
          for (const r of commands.refusals) expect(sayRefusal(r, speaker)).toMatch(/^\S.{15,}[.!?]?$/s)
          return
        }
        read++
        const applied = applyBatch(site, commands.value)
        // A distance before that of the box before it is for a person to mend, and said so.
        if (!applied.ok)
          expect([edits, [...new Set(applied.refusals.map((r) => r.code))]]).toEqual([edits, ['stop_before']])
      },
    ),
    { seed: 5, numRuns: 500 },
  )
  expect([read > 10, refused > 30]).toEqual([true, true])
})
