import fc from 'fast-check'
import { atDistances, towards } from './bearing'
import { figureIn, temperatureMeant, temperatureShown } from './figures'
import { signedLength_m } from './signed-length'

const spot = fc.record({
  x_m: fc.double({ min: -500, max: 500, noNaN: true }),
  y_m: fc.double({ min: -500, max: 500, noNaN: true }),
})

test('a spot at two taped distances lies that far from both, on the side that was said; too short a tape meets nowhere', () => {
  const tape_m = fc.double({ min: 0.1, max: 800, noNaN: true })
  fc.assert(
    fc.property(spot, spot, tape_m, tape_m, fc.constantFrom('left', 'right'), (a, b, first_m, second_m, side) => {
      const apart_m = Math.hypot(b.x_m - a.x_m, b.y_m - a.y_m)
      fc.pre(apart_m > 0.01)
      const found = atDistances(a, b, [first_m, second_m], side)
      const slack_m = Math.min(first_m + second_m - apart_m, apart_m - Math.abs(first_m - second_m))
      if (Math.abs(slack_m) > 1e-6) expect(found !== null).toBe(slack_m > 0)
      if (!found) return
      expect(Math.hypot(found.x_m - a.x_m, found.y_m - a.y_m)).toBeCloseTo(first_m, 5)
      expect(Math.hypot(found.x_m - b.x_m, found.y_m - b.y_m)).toBeCloseTo(second_m, 5)
      const turn = (b.x_m - a.x_m) * (found.y_m - a.y_m) - (b.y_m - a.y_m) * (found.x_m - a.x_m)
      expect(side === 'left' ? turn >= 0 : turn <= 0).toBe(true)
    }),
  )
})

test('which way a spot lies: north is up, east is right, and from there back is the other way', () => {
  const from = { x_m: 10, y_m: 10 }
  // prettier-ignore
  const ways = [[0, 5], [4, 4], [3, 0], [2, -2], [0, -1], [-1, -1], [-9, 0], [-3, 3]] as const
  const all = ways.map(([x, y]) => towards(from, { x_m: 10 + x, y_m: 10 + y }).direction)
  expect(all).toEqual(['n', 'ne', 'e', 'se', 's', 'sw', 'w', 'nw'])
  fc.assert(
    fc.property(spot, spot, (a, b) => {
      expect(towards(a, b).distance_m).toBeCloseTo(towards(b, a).distance_m, 9)
    }),
  )
})

test('figures as they are typed: a comma is a point, spaces count for nothing, nothing and words are none, nor is what lies out of bounds', () => {
  expect(['33,6', ' 12 ', '0', '', ' ', 'wet', '-1', '101', '1e9'].map((t) => figureIn(t, 0, 100))).toEqual([
    ...[33.6, 12, 0],
    ...[null, null, null, null, null, null],
  ])
  expect(['-3.5', '−2', '+4', '12 ft', 'west', ''].map((t) => signedLength_m(t, 'm'))).toEqual([
    ...[-3.5, -2, 4],
    expect.closeTo(3.6576, 6),
    ...[null, null],
  ])
})

test('a temperature that is shown and typed back is the one that was stored, to a tenth of a degree of the field', () => {
  fc.assert(
    fc.property(fc.double({ min: -30, max: 60, noNaN: true }), fc.constantFrom('C', 'F'), (at_C, temperature) => {
      const units = { length: 'm', temperature } as const
      const back_C = temperatureMeant(Number(temperatureShown(at_C, units)), units)
      expect(Math.abs(back_C - at_C)).toBeLessThanOrEqual(0.05 + 1e-9)
    }),
  )
})
