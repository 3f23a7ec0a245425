import { chance } from '../../standins'
import type { Point } from '../site'
import { provenRound } from '.'
import { shortestRound } from './shortest-round'

const drawn = (seed: number, count: number): Point[] => {
  const random = chance(seed)
  return Array.from({ length: count }, () => ({ x_m: random() * 300, y_m: random() * 200 }))
}
const home = { x_m: 10, y_m: 10 }
const long = (stops: readonly Point[], order: readonly number[]) => {
  const way = [home, ...order.map((i) => stops[i]!), home]
  return way.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x_m - way[i]!.x_m, p.y_m - way[i]!.y_m), 0)
}

test('a round visits every stop once, is as long as it says, and no longer than the plain one', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const stops = drawn(seed, [3, 7, 12, 15, 22, 30][seed % 6]!)
    const { order, length_m, bound_m } = provenRound(home, stops)
    expect([...order].sort((a, b) => a - b)).toEqual(stops.map((_, i) => i))
    expect(length_m).toBeCloseTo(long(stops, order), 6)
    expect(length_m).toBeLessThanOrEqual(long(stops, shortestRound(home, stops)) + 1e-6)
    expect(bound_m).toBeLessThanOrEqual(length_m)
    expect([seed, bound_m / length_m >= 0.99]).toEqual([seed, true])
  }
})

test('the bound never exceeds what trying every order of up to seven stops finds', () => {
  const orders = (left: readonly number[]): number[][] =>
    left.length === 0 ? [[]] : left.flatMap((i) => orders(left.filter((j) => j !== i)).map((rest) => [i, ...rest]))
  for (let seed = 20; seed <= 26; seed++) {
    const stops = drawn(seed, 7)
    const least = Math.min(...orders(stops.map((_, i) => i)).map((order) => long(stops, order)))
    // Thirteen stops, six of them at one place: the longer way of reckoning, with the same optimum.
    const doubled = [...stops, ...Array.from({ length: 6 }, () => stops[0]!)]
    expect(provenRound(home, stops).length_m).toBeCloseTo(least, 6)
    const { length_m, bound_m } = provenRound(home, doubled)
    expect(length_m).toBeCloseTo(least, 6)
    expect(bound_m).toBeLessThanOrEqual(least + 1e-6)
  }
})
