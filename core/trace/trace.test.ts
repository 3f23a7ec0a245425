import { demoProperty } from '../../demo/quarry-lake'
import { apart_m, legsOf } from '../map'
import type { Facts, Marked, Tracing } from '../record'
import { applyBatch, type CableId, type PlaceId, type Point } from '../site'
import { chance, groundOf } from '../../standins'
import {
  beside,
  boxEvidence,
  crossingOf,
  furtherOn,
  headingAt,
  marksOf,
  searchArea,
  soundsOtherwise,
  toneOn,
  traceSoFar,
  tracedCommands,
  walked,
  walkedWithin_m,
  wayOf,
  type BoxEvidence,
} from '.'

const { site, facts } = demoProperty()
const G2: Tracing = { cable: 'G2' as CableId, from: 'B9' as PlaceId, box: 'B10' as PlaceId }
const JOB = {
  ...Object.values(facts.jobs)[0]!,
  kind: 'trace' as const,
  traces: G2,
}
/** The demo with a trace that has these marks. */
const marked = (marks: readonly Marked[]): Facts => ({
  ...facts,
  jobs: { ...facts.jobs, walk: JOB },
  marks: Object.fromEntries(
    marks.map((m, i) => [`m${String(i).padStart(4, '0')}`, { job: 'walk', at: JOB.at, author: 'Ann', marked: m }]),
  ),
})

test('a way begins where one begins, and beside it right is right', () => {
  const way = wayOf(site, G2)!
  expect(way.stops.map((s) => s.place)).toEqual(['B9', 'B10', 'B11'])
  const north = [
    { x_m: 0, y_m: 0 },
    { x_m: 0, y_m: 10 },
    { x_m: 10, y_m: 10 },
  ]
  expect(beside(north, 4, 1)).toEqual({ x_m: 1, y_m: 4 })
  expect(beside(north, 15, -2)).toEqual({ x_m: 5, y_m: 12 })
  const east = walked(north[1]!, 30, 90)
  expect([Math.round(east.x_m), Math.round(east.y_m), walkedWithin_m(30) < 6]).toEqual([30, 10, true])
  expect(headingAt(north, -3).at).toEqual({ x_m: 0, y_m: -3 })
  expect(headingAt(north, 22).at).toEqual({ x_m: 12, y_m: 10 })
  expect(wayOf(site, { cable: null, from: null, box: null }, north)?.points).toEqual(north)
  expect(wayOf(site, { cable: null, from: null, box: null })).toBeNull()
})

/** A crew over made-up ground: crosses the line at places, and gives up what was read. */
function crossings(seed: number, places: readonly number[]): { marks: Marked[]; really: Point } {
  const ground = groundOf(site, chance(seed))
  const way = wayOf(site, G2)!
  const marks = places.flatMap((along_m, n) =>
    [-2.5, -2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2, 2.5].map((across_m): Marked => {
      const { ahead } = headingAt(way.points, along_m)
      const heading_deg = (Math.atan2(ahead.x_m, ahead.y_m) * 180) / Math.PI
      const held = { height_m: 0, tilt_deg: 0, mode: 'peak', gain: 1 } as const
      const pose = { at: beside(way.points, along_m, across_m), heading_deg: (heading_deg + 360) % 360, ...held }
      const reading = ground.shown('G2' as CableId, pose)
      return { kind: 'wand', section: `S${n + 1}`, along_m, across_m, ...held, reading }
    }),
  )
  return { marks, really: ground.really('B10' as PlaceId)! }
}

test('over made-up ground: the line is found where it really lies, and the search comes in on the lost box', () => {
  for (const seed of [3, 11, 29]) {
    const { marks, really } = crossings(seed, [30, 44, 56, 62])
    const now = marked(marks)
    const before = searchArea(boxEvidence(site, facts, 'B10' as PlaceId, () => []))!
    const after = searchArea(boxEvidence(site, now, 'B10' as PlaceId, () => []))!
    expect([seed, after.most_m2 < before.most_m2 / 2]).toEqual([seed, true])
    const inside = after.cells.filter((c) => c.held - c.p < 0.995)
    expect([seed, inside.some((c) => apart_m(c.at, really) < after.cell_m)]).toEqual([seed, true])
  }
})

test('a probe that comes down on soil takes its spot out, and the next one is another; one on the lid ends it', () => {
  const plain: BoxEvidence = {
    drawn: { x_m: 0, y_m: 0 },
    strays_m: [1.2, 0.7],
    paced: [{ from: { x_m: 0, y_m: -20 }, distance_m: 20, bearing_deg: 0 }],
    line: [],
    met: [],
    probed: [],
  }
  const first = searchArea(plain)!
  const probed = first.probes.slice(0, 10).map(({ at }) => ({ at, hit: false }))
  const later = searchArea({ ...plain, probed })!
  const near = (area: typeof later, at: Point) =>
    area.cells.filter((c) => apart_m(c.at, at) < 0.1).reduce((sum, c) => sum + c.p, 0)
  for (const { at } of probed) expect(near(later, at)).toBeLessThan(near(first, at) / 4)
  expect(probed.some(({ at }) => apart_m(at, later.probes[0]!.at) < 0.15)).toBe(false)
  const hit = { at: { x_m: 2, y_m: 1 }, hit: true }
  expect(apart_m(searchArea({ ...plain, probed: [...probed, hit] })!.spot, hit.at)).toBeLessThan(0.2)
  expect(searchArea({ ...plain, drawn: null, paced: [] })).toBeNull()
  // More boxes that strayed far make the area larger.
  const strayed = searchArea({ ...plain, paced: [], strays_m: [6, 5, 7, 6] })!
  expect(strayed.most_m2).toBeGreaterThan(4 * searchArea({ ...plain, paced: [] })!.most_m2)
})

test('a traced stretch is taken into the record: its bends, its length as seen today; what was not crossed twice is refused', () => {
  const { marks } = crossings(5, [20, 40])
  const now = marked(marks)
  const trace = traceSoFar(site, G2, marksOf(now, 'walk'))
  const taken = tracedCommands(site, 'G2' as CableId, trace, '2026-05-02')
  if (!taken.ok) throw new Error(JSON.stringify(taken.refusals))
  const applied = applyBatch(site, taken.value.commands)
  if (!applied.ok) throw new Error(JSON.stringify(applied.refusals))
  const cable = applied.value.site.cables['G2' as CableId]!
  const leg = legsOf(applied.value.site, cable).find((l) => l.from === 'B9')!
  expect(leg.points).toHaveLength(4)
  const [b9, b10, b11] = [2, 3, 4].map((i) => cable.stops[i]!.at_m as { value: number; how: string; on: string | null })
  expect(b10!.value - b9!.value).toBeCloseTo(leg.length_m, 1)
  expect([b10!.how, b10!.on]).toEqual(['seen', '2026-05-02'])
  // What lies beyond goes along.
  expect(b11!.value - b10!.value).toBeCloseTo(62, 1)
  const once = traceSoFar(site, G2, marksOf(marked(marks.slice(0, 11)), 'walk'))
  expect(tracedCommands(site, 'G2' as CableId, once, '2026-05-02')).toMatchObject({
    ok: false,
    refusals: [{ code: 'too_little_traced' }],
  })
})

test('a mark that is taken back is gone, for whoever walks the trace', () => {
  const { marks } = crossings(5, [20])
  const back: Marked = { kind: 'back', mark: 'm0010' }
  expect(traceSoFar(site, G2, marksOf(marked([...marks, back]), 'walk')).sections[0]!.readings).toHaveLength(10)
})

test('the tone is on from the step that puts it on until one sees it off, in whatever procedure', () => {
  const step = (job: string, name: string, minute: number, kind: 'done' | 'undone' = 'done') => ({
    job,
    at: `2026-05-02T10:${String(minute).padStart(2, '0')}:00.000Z`,
    author: 'Sam',
    step: name,
    heeded: true,
    answer: { kind },
  })
  const follows = (id: string) => ({
    ...JOB,
    kind: 'procedure' as const,
    traces: undefined,
    visit: 'v',
    follows: { id, on: { kind: 'property' as const } },
  })
  const of = (...steps: ReturnType<typeof step>[]): Facts => ({
    ...facts,
    jobs: { up: follows('hook_up'), down: follows('pack_up') },
    steps: Object.fromEntries(steps.map((s, i) => [`s${i}`, s])),
  })
  const [off, on, seenOff] = [step('up', 'off', 1), step('up', 'on', 9), step('down', 'off', 40)]
  expect(toneOn(of(off), 'v')).toBeNull()
  expect(toneOn(of(off, on), 'v')).toEqual({ since: on.at, author: 'Sam', job: 'up' })
  expect(toneOn(of(off, on), 'another')).toBeNull()
  expect(toneOn(of(off, on, seenOff), 'v')).toBeNull()
  expect(toneOn(of(off, on, step('up', 'on', 10, 'undone')), 'v')).toBeNull()
})

test('readings that show no line place none: one level everywhere is silence, and a loud end lies beside the line', () => {
  const across = (level: (x: number) => number) =>
    [-1.2, -0.8, -0.4, 0, 0.4, 0.8, 1.2].map((across_m, i) => ({
      along_m: 0,
      across_m,
      height_m: 0,
      tilt_deg: 0,
      mode: 'peak' as const,
      gain: 1,
      reading: level(across_m) * (1 + 0.05 * Math.sin(i * 2.4)),
    }))
  expect(crossingOf(across(() => 9))).toBeNull()
  const under = across((x) => Math.max(9, 25 * (0.4 / (x * x + 0.16))))
  expect(crossingOf(under)!.cover_m.mid).toBeCloseTo(0.4, 1)
  // A wand that is said to be loudest above the line, and is silent there.
  const silent = across((x) => Math.max(9, Math.abs((25 * x) / (x * x + 0.16))))
  expect([soundsOtherwise(under), soundsOtherwise(silent)]).toEqual([false, true])
  expect([furtherOn(under), furtherOn(across((x) => 40 - 10 * x)), furtherOn(across((x) => 40 + 10 * x))]).toEqual([
    null,
    'left',
    'right',
  ])
})
