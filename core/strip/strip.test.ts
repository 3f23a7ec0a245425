import { quarryLake } from '../../demo/quarry-lake'
import { randomSite } from '../../tests/random-site'
import { sceneOf, sweepTerminals } from '../expect'
import { lengthBetween_m, stopPositions_m, type ControllerId, type Site } from '../site'
import { sectionsOf } from './strip'

const drawn = (site: Site, controller: string) => {
  const scene = sceneOf(site)
  const id = controller as ControllerId
  const hanging = scene.hanging(id)
  return sectionsOf(
    site,
    scene.network.wiring,
    id,
    sweepTerminals(site, id, hanging),
    (t) => hanging.get(t)?.coils ?? [],
  )
}

test('the demo’s threads: grouped by the common they come home on, in the order of the door, boxes by distance', () => {
  const [main, bank] = drawn(quarryLake(), 'A')
  expect([main!.name, main!.strips.map((s) => s.terminal).join()]).toEqual([
    'Main run',
    'MV,1,2,3,4,5,6,7,8,9,10,11,12',
  ])
  expect([bank!.name, bank!.strips.map((s) => s.terminal).join()]).toEqual(['Bank common', '13,14,15,16,17,18'])
  expect(main!.boxes.map((b) => `${b.tag} ${b.at_m}`)).toEqual([
    'B1 14',
    'B2 46',
    'B3 77',
    'B4 120',
    'B5 168',
    'B6 204',
    'B7 240',
  ])
  const nine = main!.strips.find((s) => s.terminal === '9')!
  expect(nine.runs.every((r) => r.colour === 'red/white')).toBe(true)
  expect(nine.marks.map((m) => `${m.kind} ${m.at_m}`)).toEqual([
    'notch 14',
    'notch 46',
    'notch 77',
    'notch 120',
    'knot 168',
  ])
  expect(nine.coils).toEqual([{ device: 'V9', at_m: 168, place: 'B5' }])
  // Its landing is no joint on the way; the one at the valve is.
  expect(nine.joints.map((j) => j.at_m)).toEqual([168])
  expect(nine.runs.map(({ link }) => `${link.core} ${link.from}`)).toEqual(
    [0, 1, 2, 3, 4].map((i) => `${nine.runs[0]!.link.core} ${i}`),
  )
  expect(main!.common!.marks.every((m) => m.kind === 'knot')).toBe(true)
})

test('a thread behind a sequencer is drawn to its end without a coil', () => {
  const [slipway] = drawn(quarryLake(), 'S')
  const five = slipway!.strips.find((s) => s.terminal === '5')!
  expect([five.length_m, five.coils]).toEqual([95, []])
})

test('on made-up properties every thread begins at the controller, runs without a gap to its coil, and ends where it is long', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const { site, stations } = randomSite(seed)
    const strips = drawn(site, 'A').flatMap((s) => s.strips)
    expect(strips.map((s) => s.terminal as string).sort()).toEqual([...stations].sort())
    for (const strip of strips) {
      let reached = 0
      for (const run of [...strip.runs].sort((a, b) => a.from_m - b.from_m)) {
        expect(run.from_m).toBeCloseTo(reached, 6)
        reached = run.to_m
      }
      expect(strip.length_m).toBeCloseTo(reached, 6)
      expect(strip.coils.length).toBeGreaterThan(0)
      for (const coil of strip.coils) expect(coil.at_m).toBeCloseTo(strip.length_m, 6)
    }
  }
})

test('stops of unknown or ranged position: between known neighbours evenly, beyond them with room for a long run', () => {
  const cable = Object.values(quarryLake().cables)[0]!
  const at = (...figures: (number | [number, number] | null)[]) =>
    stopPositions_m({
      ...cable,
      stops: figures.map((f, i) => ({
        ...cable.stops[i]!,
        at_m:
          f === null
            ? null
            : typeof f === 'number'
              ? { value: f, how: 'seen' as const, on: null }
              : { low: f[0], high: f[1], how: 'reported' as const, on: null },
      })),
    })
  expect(at(0, null, null, 90).map((p) => p.value)).toEqual([0, 30, 60, 90])
  expect(at(0, null, 90)[1]).toEqual({ value: 45, low: 0, high: 90 })
  expect(at(0, 40, null)[2]).toEqual({ value: 90, low: 40, high: 340 })
  expect(lengthBetween_m(at(0, [30, 50], 90), 0, 1)).toEqual({ value: 40, low: 30, high: 50 })
  expect(lengthBetween_m(at(0, [30, 50], 90), 1, 2)).toEqual({ value: 50, low: 40, high: 60 })
  expect(at(null, 40)[0]).toEqual({ value: 0, low: 0, high: 0 })
})
