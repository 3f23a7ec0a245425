import { gpx } from '@tmcw/togeojson'
import { DOMParser } from '@xmldom/xmldom'
import fc from 'fast-check'
import { quarryLake } from '../../demo/quarry-lake'
import { readGeoJson, readGpx, writeGeoJson, writeGpx } from '../formats'
import type { Outcome } from '../refusal'
import { applyBatch, Draft, emptySite, type CableId, type Command, type PlaceId, type Site } from '../site'
import {
  apart_m,
  atPixel,
  bendCommands,
  cableAlong,
  drawnDistances_m,
  lengthsFromDrawing,
  lineOf,
  markLine,
  newPlaceCommands,
  piece,
  pixelAt,
  placeCommands,
  placementOf,
  removeCableCommands,
  removePlaceCommands,
  stray_m,
  takeIn,
  toLatLon,
  toLocal,
} from '.'

const after = (site: Site, commands: readonly Command[]): Site => {
  const applied = applyBatch(site, commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  return applied.value.site
}
const value = <T>(outcome: Outcome<T>): T => {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.refusals))
  return outcome.value
}
const drawn = () =>
  new Draft('Drawn')
    .about('origin', { latitude_deg: -47.5, longitude_deg: -120.25 })
    .place('A', 'cabinet', { position: { value: { x_m: 0, y_m: 0 }, how: 'seen' } })
    .place('B1', 'valve_box', {
      position: { value: { x_m: 30, y_m: 40 }, how: 'assumed' },
      foundAt: { value: { x_m: 33, y_m: 44 }, how: 'seen' },
      lid: 'round, green',
    })
    .place('B2', 'valve_box', { position: { value: { x_m: 63, y_m: 44 }, how: 'assumed' } })
    .place('B3')
    .controller('A', 'A', 1)
    .cable(
      'K1',
      {
        gauge: null,
        stops: [
          ['A', 0],
          ['B1', 60],
          ['B2', 100],
        ],
        cores: ['white'],
      },
      { bends: { A: [{ x_m: 33, y_m: 0 }] } },
    )
    .site()
const cable = 'K1' as CableId

test('degrees and metres: there and back to a tenth of a millimetre, and a degree as long as the ellipsoid has it', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -70, max: 70, noNaN: true }),
      fc.double({ min: -180, max: 180, noNaN: true }),
      fc.double({ min: -900, max: 900, noNaN: true }),
      fc.double({ min: -900, max: 900, noNaN: true }),
      (latitude_deg, longitude_deg, x_m, y_m) => {
        const origin = { latitude_deg, longitude_deg }
        expect(apart_m(toLocal(origin, toLatLon(origin, { x_m, y_m })), { x_m, y_m })).toBeLessThan(1e-4)
      },
    ),
    { numRuns: 200, seed: 7 },
  )
  // An independent figure: a degree of latitude is 111 131.8 m at 45° on WGS 84, a second of it 30.87 m.
  expect(
    toLocal({ latitude_deg: 45, longitude_deg: 10 }, { latitude_deg: 45 + 1 / 3600, longitude_deg: 10 }).y_m,
  ).toBeCloseTo(30.87, 1)
  expect(
    toLocal({ latitude_deg: 0, longitude_deg: 179.999 }, { latitude_deg: 0, longitude_deg: -179.999 }).x_m,
  ).toBeCloseTo(222.64, 1)
})

test('a drawn route has the length of its line, gives its distances to the run, and lends pieces of itself to sleeves', () => {
  const site = drawn()
  expect(drawnDistances_m(site, site.cables[cable]!)).toEqual([0, 77, 107])
  const taken = after(site, value(lengthsFromDrawing(site, cable)))
  expect(taken.cables[cable]!.stops.map((s) => s.at_m && 'value' in s.at_m && s.at_m.value)).toEqual([0, 77, 107])
  expect(piece(lineOf(site, site.cables[cable]!), 30, 43)).toEqual([
    { x_m: 30, y_m: 0 },
    { x_m: 33, y_m: 0 },
    { x_m: 33, y_m: 10 },
  ])
  expect(piece(lineOf(site, site.cables[cable]!), 200, 300)).toEqual([])
  const later = {
    ...site.cables[cable]!,
    stops: site.cables[cable]!.stops.map((s, i) =>
      i === 0 ? { ...s, at_m: { value: 10, how: 'seen' as const, on: null } } : s,
    ),
  }
  expect(markLine(site, later, { kind: 'sleeve', from_m: 40, to_m: 53, note: '' })).toEqual([
    { x_m: 30, y_m: 0 },
    { x_m: 33, y_m: 0 },
    { x_m: 33, y_m: 10 },
  ])
  const straight = after(site, bendCommands(site, cable, 'A' as never, []))
  expect(drawnDistances_m(straight, straight.cables[cable]!)[1]).toBeCloseTo(55, 9)
  const beside = new Draft('Beside')
    .place('A', 'cabinet', { position: { value: { x_m: 0, y_m: 0 }, how: 'seen' } })
    .place('B', 'valve_box', { position: { value: { x_m: 3, y_m: 4 }, how: 'seen' } })
    .cable(
      'K1',
      {
        gauge: null,
        stops: [
          ['A', 0],
          ['B', 7],
        ],
        cores: ['white'],
      },
      { bends: { A: [{ x_m: 3, y_m: 0 }] } },
    )
    .cable('L1', {
      gauge: null,
      kind: 'single',
      stops: [
        ['A', 0],
        ['B', 7],
      ],
      cores: ['red'],
    })
    .site()
  expect(drawnDistances_m(beside, beside.cables['L1' as CableId]!)).toEqual([0, 7])
  expect(lengthsFromDrawing(emptyRoute(), cable)).toMatchObject({ ok: false, refusals: [{ code: 'not_drawn' }] })
})
const emptyRoute = () =>
  new Draft('Bare')
    .place('A', 'cabinet')
    .place('B')
    .controller('A', 'A', 1)
    .cable('K1', {
      gauge: null,
      stops: [
        ['A', 0],
        ['B', null],
      ],
      cores: ['white'],
    })
    .site()

test('drawn against found: both are kept, the found one counts, the stray is told', () => {
  const site = drawn()
  expect(stray_m(site.places['B1' as PlaceId]!)).toBe(5)
  const moved = after(site, placeCommands(site, 'B2' as PlaceId, { x_m: 63.0004, y_m: 48 }, 'found', '2026-11-25'))
  expect(moved.places['B2' as PlaceId]).toMatchObject({
    found: 'found',
    position: { value: { y_m: 44 } },
    foundAt: { value: { x_m: 63, y_m: 48 }, on: '2026-11-25' },
  })
  expect(
    after(site, newPlaceCommands(site, { x_m: 1, y_m: 1 }, 'valve_box').commands).places['B4' as PlaceId]?.tag,
  ).toBe('B4')
})

test('a place or a cable goes only where nothing hangs on it', () => {
  const site = drawn()
  expect(removePlaceCommands(site, 'B1' as PlaceId)).toMatchObject({ ok: false, refusals: [{ code: 'place_in_use' }] })
  expect(after(site, value(removePlaceCommands(site, 'B3' as PlaceId))).places['B3' as PlaceId]).toBeUndefined()
  expect(after(site, value(removeCableCommands(site, cable))).cables).toEqual({})
  expect(removeCableCommands(quarryLake(), 'K3' as CableId)).toMatchObject({
    ok: false,
    refusals: [{ code: 'cable_in_use', params: { cable: 'K3' } }],
  })
  const line = cableAlong(site, [
    { x_m: 0, y_m: 0 },
    { x_m: 20, y_m: 60 },
    { x_m: 63, y_m: 44 },
  ])
  expect(
    Object.values(after(site, value(line)).cables).map((c) => [
      c.tag,
      c.stops.map((s) => s.place),
      Object.values(c.bends),
    ]),
  ).toEqual([
    ['K1', ['A', 'B1', 'B2'], [[{ x_m: 33, y_m: 0 }]]],
    ['K2', ['A', 'B2'], [[{ x_m: 20, y_m: 60 }]]],
  ])
  expect(
    cableAlong(site, [
      { x_m: 500, y_m: 0 },
      { x_m: 600, y_m: 60 },
    ]),
  ).toMatchObject({ ok: false, refusals: [{ code: 'passes_no_boxes' }] })
})

test('a picture under the map: two ties turn and scale it exactly, whatever they are', () => {
  const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  fc.assert(
    fc.property(
      number(0, 4000),
      number(0, 3000),
      number(0, 4000),
      number(0, 3000),
      number(-200, 200),
      number(-200, 200),
      number(0.01, 1),
      number(-3.1, 3.1),
      (px, py, qx, qy, x_m, y_m, scale, turn) => {
        fc.pre(Math.hypot(px - qx, py - qy) > 5)
        const [dx, dy] = [qx - px, -(qy - py)]
        const two = {
          x_m: x_m + scale * (dx * Math.cos(turn) - dy * Math.sin(turn)),
          y_m: y_m + scale * (dx * Math.sin(turn) + dy * Math.cos(turn)),
        }
        const placed = placementOf({
          name: '',
          sha256: '',
          width_px: 4000,
          height_px: 3000,
          width_m: 10,
          opacity: 1,
          ties: [
            { px, py, at: { x_m, y_m } },
            { px: qx, py: qy, at: two },
          ],
        })
        expect(placed.metresPerPixel).toBeCloseTo(scale, 6)
        expect(apart_m(atPixel(placed, px, py), { x_m, y_m })).toBeLessThan(1e-6)
        expect(apart_m(atPixel(placed, qx, qy), two)).toBeLessThan(1e-6)
        const back = pixelAt(placed, atPixel(placed, 123, 45))
        expect([back.px, back.py]).toEqual([expect.closeTo(123, 5), expect.closeTo(45, 5)])
      },
    ),
    { numRuns: 200, seed: 3 },
  )
  expect(
    atPixel(
      placementOf({ name: '', sha256: '', width_px: 200, height_px: 100, width_m: 50, opacity: 1, ties: [] }),
      200,
      100,
    ),
  ).toEqual({ x_m: 25, y_m: -12.5 })
})

test('GPX as a general reader sees it, and back: positions to the centimetre; what has no room is counted', () => {
  const site = drawn()
  const { value: text, left } = value(writeGpx(site))
  const seen = gpx(new DOMParser().parseFromString(text, 'text/xml') as never) as {
    features: { geometry: { type: string; coordinates: number[] }; properties: { name: string } }[]
  }
  expect(seen.features.map((f) => [f.geometry.type, f.properties.name])).toEqual(
    expect.arrayContaining([
      ['Point', 'A'],
      ['Point', 'B1'],
      ['Point', 'B2'],
      ['MultiLineString', 'K1'],
    ]),
  )
  const b1 = seen.features.find((f) => f.properties.name === 'B1')!.geometry.coordinates
  expect(
    apart_m(toLocal(site.about.origin!, { longitude_deg: b1[0]!, latitude_deg: b1[1]! }), { x_m: 33, y_m: 44 }),
  ).toBeLessThan(0.01)
  expect(left).toEqual(
    expect.arrayContaining([
      { code: 'unplaced', count: 1 },
      { code: 'strays', count: 1 },
      { code: 'depths', count: 1 },
      { code: 'cores', count: 1 },
    ]),
  )
  const back = takeIn(site, value(readGpx(text)).value)
  expect([back.commands, back.left]).toEqual([[], ['K1', 'K1']])
})

test('GeoJSON keeps places and routes whole: another property takes them in and draws them the same', () => {
  const site = drawn()
  const { value: text, left } = value(writeGeoJson(site))
  const features = (
    JSON.parse(text) as {
      features: { id: string; geometry: { coordinates: number[][] } | null; properties: Record<string, unknown> }[]
    }
  ).features
  expect(features.map((f) => [f.id, f.geometry === null])).toEqual([
    ['A', false],
    ['B1', false],
    ['B2', false],
    ['B3', true],
    ['K1', false],
  ])
  expect(features[1]!.properties).toMatchObject({
    tag: 'B1',
    lid: 'round, green',
    drawn: { how: 'assumed' },
    foundAt: { how: 'seen' },
  })
  expect(left).toEqual([{ code: 'controllers', count: 1 }])
  expect(takeIn(site, value(readGeoJson(text)).value).commands).toEqual([])
  const fresh = takeIn(emptySite('Fresh'), value(readGeoJson(text)).value)
  const other = after(emptySite('Fresh'), fresh.commands)
  expect([fresh.added, fresh.newCables, fresh.left]).toEqual([3, 1, []])
  expect(drawnDistances_m(other, Object.values(other.cables)[0]!).map((d) => Math.round(d! * 10) / 10)).toEqual([
    0, 77, 107,
  ])
})

test('what is no map is refused in a sentence’s code; the demo’s map goes out whole', () => {
  expect(
    [
      readGeoJson('{"type":"Topology"}'),
      readGeoJson('{'),
      readGpx('<gpx><wpt></gpx>'),
      readGpx('<kml></kml>'),
      readGpx('<!DOCTYPE x [<!ENTITY a "b">]><gpx/>'),
    ].map((r) => (r.ok ? '' : r.refusals[0]!.code)),
  ).toEqual(['not_geojson', 'not_json', 'not_xml', 'not_gpx', 'not_xml'])
  expect(value(readGpx('<gpx><wpt lat="95" lon="0"/><wpt lat="1" lon="2"><name>B9</name></wpt></gpx>'))).toMatchObject({
    value: { points: [{ name: 'B9', at: { latitude_deg: 1 } }] },
    left: [{ code: 'bad_points', count: 1 }],
  })
  const demo = quarryLake()
  expect(takeIn(demo, value(readGeoJson(value(writeGeoJson(demo)).value)).value)).toMatchObject({
    commands: [],
    left: [],
  })
  expect(writeGeoJson({ ...demo, about: { ...demo.about, origin: null } })).toMatchObject({
    ok: false,
    refusals: [{ code: 'no_origin' }],
  })
})

test('files that are damaged, or are something else, are refused or read, never half taken in', () => {
  const [geo, gpxText] = [value(writeGeoJson(drawn())).value, value(writeGpx(drawn())).value]
  const garbled = (text: string) =>
    fc
      .tuple(fc.nat(text.length - 1), fc.nat(20), fc.string({ maxLength: 6 }))
      .map(([at, cut, put]) => text.slice(0, at) + put + text.slice(at + cut))
  const whole = (text: string, read: typeof readGeoJson) => {
    const outcome = read(text)
    if (!outcome.ok) {
      expect(outcome.refusals[0]!.code).toMatch(/^[a-z_]+$/)
      return
    }
    const site = drawn()
    const taken = takeIn(site, outcome.value.value)
    after(site, taken.commands)
    for (const p of outcome.value.value.points)
      expect(Math.abs(p.at.latitude_deg) <= 90 && Math.abs(p.at.longitude_deg) <= 180).toBe(true)
  }
  fc.assert(
    fc.property(garbled(geo), (text) => whole(text, readGeoJson)),
    { numRuns: 300, seed: 5 },
  )
  fc.assert(
    fc.property(garbled(gpxText), (text) => whole(text, readGpx)),
    { numRuns: 300, seed: 6 },
  )
  fc.assert(
    fc.property(fc.jsonValue(), (json) =>
      whole(JSON.stringify({ type: 'FeatureCollection', features: [json] }), readGeoJson),
    ),
    { numRuns: 200, seed: 7 },
  )
})

test('a file of more points than a property has is refused with their number, however they are packed, and at once', () => {
  const spot = (i: number) => [(i % 360) - 180, (i % 170) - 85]
  const many = Array.from({ length: 200_000 }, (_, i) => spot(i))
  const geo = JSON.stringify({
    type: 'FeatureCollection',
    features: [{ type: 'Feature', geometry: { type: 'MultiPoint', coordinates: many }, properties: {} }],
  })
  const gpx = `<gpx>${many
    .slice(0, 30_000)
    .map(([lon, lat]) => `<wpt lat="${lat}" lon="${lon}"/>`)
    .join('')}</gpx>`
  expect(readGeoJson(geo)).toMatchObject({
    ok: false,
    refusals: [{ code: 'too_many_drawn', params: { count: 200_000 } }],
  })
  expect(readGpx(gpx)).toMatchObject({ ok: false, refusals: [{ code: 'too_many_drawn', params: { count: 30_000 } }] })
})
