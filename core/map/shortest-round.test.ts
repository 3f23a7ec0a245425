import { seeded } from '../../tests/random-site'
import { apart_m } from './index'
import { shortestRound } from './shortest-round'

const home = { x_m: 0, y_m: 0 }
const drawn = (count: number, rng: () => number) =>
  Array.from({ length: count }, () => ({ x_m: rng() * 200, y_m: rng() * 100 }))
const round_m = (stops: readonly { x_m: number; y_m: number }[], order: readonly number[]) =>
  [...order.map((i) => stops[i]!), home].reduce(({ at, m }, next) => ({ at: next, m: m + apart_m(at, next) }), {
    at: home,
    m: 0,
  }).m
const allOrders = (left: readonly number[]): number[][] =>
  left.length === 0 ? [[]] : left.flatMap((i) => allOrders(left.filter((j) => j !== i)).map((rest) => [i, ...rest]))

test('the shortest round on foot is as short as trying every order; beyond twelve stops it visits each once and has no crossing left', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const stops = drawn(3 + (seed % 5), seeded(seed))
    const least = Math.min(...allOrders(stops.map((_, i) => i)).map((order) => round_m(stops, order)))
    expect(round_m(stops, shortestRound(home, stops))).toBeCloseTo(least, 6)
  }
  const many = drawn(24, seeded(99))
  const order = shortestRound(home, many)
  expect([...order].sort((a, b) => a - b)).toEqual(many.map((_, i) => i))
  for (let i = 0; i < 23; i++)
    for (let j = i + 1; j < 24; j++) {
      const turned = [...order.slice(0, i), ...order.slice(i, j + 1).reverse(), ...order.slice(j + 1)]
      expect(round_m(many, turned)).toBeGreaterThanOrEqual(round_m(many, order) - 1e-4)
    }
})
