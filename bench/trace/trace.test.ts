import { readTraceCsv, writeTraceCsv } from '../../core/formats'
import { crossingOf, findsAlong, searchArea } from '../../core/trace'
import { seeded } from '../../tests/random-site'
import { crossed, findable, walked, type Ground } from './ground'
import { drawLost, probesInOrder, spiralProbes } from './lost'

test('readings across: a line is placed and its cover told, from a wand held at some height, in either mode', () => {
  const random = seeded(5)
  let [placed, held] = [0, 0]
  for (let i = 0; i < 16; i++) {
    const [line_m, cover_m] = [0.4 * (random() - 0.5), 0.2 + 0.7 * random()]
    const { across_m, cover_m: cover } = crossingOf(crossed(line_m, cover_m, random))!
    placed += Number(Math.abs(across_m.mid - line_m) <= 0.05 && Math.abs(cover.mid / cover_m - 1) <= 0.1)
    held += Number(cover.low <= cover_m && cover_m <= cover.high && across_m.low <= line_m && line_m <= across_m.high)
  }
  expect(placed).toBeGreaterThanOrEqual(13)
  expect(held).toBeGreaterThanOrEqual(11)
  expect(crossingOf(crossed(0, 0.5, random).slice(0, 2))).toBeNull()
})

test('a leaning wand: the silent place lies aside by the cover, and the lean is reckoned with', () => {
  const leaning = [-0.9, -0.7, -0.5, -0.4, -0.2, 0, 0.2].map((across_m) => {
    const [x, h] = [-across_m, 0.5]
    const [vertical, horizontal] = [x / (x * x + h * h), h / (x * x + h * h)]
    const turned = Math.PI / 4
    // The top leans to the left: the horizontal part takes away from the vertical one on the left.
    const reading = 100 * Math.max(0.05, Math.abs(vertical * Math.cos(turned) - horizontal * Math.sin(turned)))
    return { along_m: 0, across_m, height_m: 0, tilt_deg: -45, mode: 'null' as const, gain: 1, reading }
  })
  const { across_m, cover_m } = crossingOf(leaning)!
  expect([across_m.mid, cover_m.mid - 0.5].every((off) => Math.abs(off) < 0.05)).toBe(true)
})

test('a walk along: a rise, a step and an end are found where they are and for what they are, and nothing else', () => {
  const thing = { kept: 0.6, spread_m: 0.9 }
  const ground: Ground = {
    fade_m: 100,
    long_m: 40,
    things: [
      { ...thing, kind: 'local', at_m: 8.3 },
      { ...thing, kind: 'step', at_m: 18.1 },
      { ...thing, kind: 'spread_end', at_m: 31.4 },
    ],
  }
  expect(findable(ground)).toHaveLength(3)
  const finds = findsAlong(walked(ground, 0.25, seeded(4)))
  expect(finds.map((f) => f.kind)).toEqual(['local', 'step', 'spread_end'])
  finds.forEach((f, i) => {
    const { at_m } = ground.things[i]!
    expect(Math.abs(f.along_m.mid - at_m)).toBeLessThan(0.5)
    expect(f.along_m.low < f.along_m.mid && f.along_m.mid < f.along_m.high).toBe(true)
  })
})

test('a wand that is silent above the line shows nothing there, and one that shows nothing at all tells nothing', () => {
  const random = seeded(6)
  const section = crossed(0.1, 0.5, random).map((r) => ({ ...r, mode: 'null' as const }))
  const silent = [-0.6, -0.3, -0.1, 0, 0.1, 0.3, 0.6].map((across_m) => {
    const reading = Math.round((40 * Math.abs(across_m)) / (across_m * across_m + 0.25))
    return { ...section[0]!, across_m, height_m: 0, reading }
  })
  expect(silent[3]!.reading).toBe(0)
  expect(Math.abs(crossingOf(silent)!.across_m.mid)).toBeLessThan(0.05)
  expect(crossingOf(silent.map((r) => ({ ...r, reading: 0 })))).toBeNull()
  expect(
    findsAlong(walked({ fade_m: 90, long_m: 20, things: [] }, 0.25, random).map((r) => ({ ...r, reading: 0 }))),
  ).toEqual([])
})

test('a sound wire has no finds, whatever the gain is turned to', () => {
  const random = seeded(8)
  const sound: Ground = { fade_m: 120, long_m: 80, things: [] }
  expect(findsAlong(walked(sound, 0.25, random))).toEqual([])
})

test('readings come in and go out as CSV; a bad line is refused with its line and column', () => {
  const readings = crossed(0.1, 0.5, seeded(1)).map((r) => ({ ...r, section: 'a' }))
  const back = readTraceCsv(writeTraceCsv(readings))
  expect(back).toEqual({ ok: true, value: readings })
  const codes = (text: string) => {
    const read = readTraceCsv(text)
    return read.ok ? [] : read.refusals.map((r) => [r.code, ...r.path].join(' '))
  }
  expect(codes('mode,reading\npeak,5')).toEqual(['not_a_figure line 2 along_m'])
  expect(codes('along_m,reading\n1,5')).toEqual(['no_column line 1'])
  expect(codes('along_m,mode,reading\n1,loud,5\n2,peak,x')).toEqual([
    'not_one_of line 2 mode',
    'not_a_figure line 3 reading',
  ])
  expect(codes('along_m,mode,reading,depth\n1,peak,5,1')).toEqual(['unknown_trace_column line 1'])
  expect(codes('along_m,mode,reading')).toEqual(['no_readings_there line 2'])
})

test('a lost box lies in the area that should hold it nine times in ten, and is come down on with less than a spiral', () => {
  const random = seeded(3)
  let [held, probes, spiral] = [0, 0, 0]
  for (let i = 0; i < 24; i++) {
    const lost = drawLost(random, i)
    const area = searchArea(lost.evidence)!
    const own = area.cells.find((c) => Math.max(Math.abs(c.at.x_m), Math.abs(c.at.y_m)) <= area.cell_m / 2)
    held += Number(own !== undefined && own.held - own.p < 0.9)
    probes += probesInOrder(area.probes)
    spiral += spiralProbes(lost)
  }
  expect(held).toBeGreaterThanOrEqual(18)
  expect(probes / spiral).toBeLessThan(0.6)
})
