import { demoProperty } from '../../demo/quarry-lake'
import type { CableId, PlaceId } from '../../core/site'
import { chance } from '../chance'
import { groundOf, wandOn } from '.'

const { site } = demoProperty()
const K1 = 'K1' as CableId
const HELD = { heading_deg: 0, height_m: 0, tilt_deg: 0, mode: 'peak', gain: 1 } as const

test('found boxes lie where they were found, the lost one elsewhere; the same for the same chance', () => {
  const [a, b, other] = [groundOf(site, chance(4)), groundOf(site, chance(4)), groundOf(site, chance(5))]
  const B10 = 'B10' as PlaceId
  const drawn = site.places[B10]!.position!.value
  expect(a.really('B4' as PlaceId)).toEqual(site.places['B4' as PlaceId]!.foundAt!.value)
  expect(a.really(B10)).toEqual(b.really(B10))
  expect(a.really(B10)).not.toEqual(other.really(B10))
  expect(a.isLid(a.really(B10)!)).toBe(true)
  expect(a.isLid({ x_m: a.really(B10)!.x_m + 0.3, y_m: a.really(B10)!.y_m })).toBe(false)
  expect(Math.hypot(a.really(B10)!.x_m - drawn.x_m, a.really(B10)!.y_m - drawn.y_m)).toBeLessThan(8)
})

test('a tone is loudest above the wire and fades along it; far off and past a cut nothing but the floor is shown', () => {
  const middle = (read: () => number) => {
    const all = Array.from({ length: 25 }, read).sort((p, q) => p - q)
    return all[12]!
  }
  const ground = groundOf(site, chance(9))
  const along = (y_m: number) =>
    Math.max(
      ...Array.from({ length: 60 }, (_, i) =>
        middle(() => ground.shown(K1, { ...HELD, at: { x_m: -3 + i / 10 + y_m, y_m: y_m * 0.45 } })),
      ),
    )
  // The first leg runs to the north-east.
  expect(along(8)).toBeGreaterThan(3 * middle(() => ground.shown(K1, { ...HELD, at: { x_m: -40, y_m: -40 } })))
  const cut = structuredClone(site)
  for (const core of Object.values(cut.cables[K1]!.cores))
    Object.assign(core, { conditions: { A: { state: 'open', since: null, note: '' } } })
  const broken = groundOf(cut, chance(9))
  const far = { ...HELD, at: site.places['B3' as PlaceId]!.position!.value }
  expect(middle(() => broken.shown(K1, far))).toBeLessThan(middle(() => ground.shown(K1, far)))
})

test('a wand is told in plain lines how it is held, and says nothing to what it does not know', () => {
  const wand = wandOn(site, groundOf(site, chance(2)))
  expect(wand.hear('WAND:READ?')).toBe('0')
  for (const line of [
    'WAND:LINE L17',
    'wand:pos -60,80',
    'WAND:HEAD 10',
    'WAND:HEIG 0.1',
    'WAND:MODE NULL',
    'WAND:GAIN 2',
  ])
    expect([line, wand.hear(line)]).toEqual([line, null])
  expect(Number(wand.hear('WAND:READ?'))).toBeGreaterThan(0)
  expect(
    ['WAND:PROB? 500,500', 'WAND:POS here', 'WAND:TILT 400', 'WAND:SING', 'WAND:'].map((l) => wand.hear(l)),
  ).toEqual(['soil', null, null, null, null])
})

test('some ground has a fence that takes a part of the tone along: beside it one side is louder than the other', () => {
  const uneven = Array.from({ length: 12 }, (_, seed) => {
    const ground = groundOf(site, chance(seed))
    const G2 = 'G2' as CableId
    // The bank’s first leg runs to the west by north; a good way along it, to both sides.
    const shown = (across_m: number) =>
      Array.from({ length: 9 }, () =>
        ground.shown(G2, { ...HELD, heading_deg: 290, at: { x_m: -18, y_m: 4.6 + across_m } }),
      ).sort((a, b) => a - b)[4]!
    const peak = Array.from({ length: 31 }, (_, i) => -3 + i * 0.2).reduce((best, x) =>
      shown(x) > shown(best) ? x : best,
    )
    return Math.max(shown(peak + 1.8) / shown(peak - 1.8), shown(peak - 1.8) / shown(peak + 1.8))
  })
  expect(uneven.filter((r) => r > 1.5).length).toBeGreaterThan(1)
  expect(uneven.filter((r) => r < 1.3).length).toBeGreaterThan(3)
})
