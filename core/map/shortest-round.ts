import type { Point } from '../site'
import { apart_m } from './route'

/** So many stops are settled exactly: 12 · 2¹² states. */
const EXACT_STOPS = 12

/**
 * The order in which stops are best visited on foot, from a place and back to it, straight from stop to stop. Exact up
 * to twelve stops (Held and Karp 1962); beyond, the nearest next and then every exchange of two ways that shortens it.
 * @returns places in the list of stops
 */
export function shortestRound(home: Point, stops: readonly Point[]): number[] {
  if (stops.length <= 2) return stops.map((_, i) => i)
  const from = (a: number, b: number) => apart_m(a < 0 ? home : stops[a]!, b < 0 ? home : stops[b]!)
  return stops.length <= EXACT_STOPS ? exactRound(stops.length, from) : exchanged(nearestNext(stops.length, from), from)
}

type Apart = (a: number, b: number) => number

function exactRound(count: number, apart: Apart): number[] {
  const all = (1 << count) - 1
  const best = new Float64Array((all + 1) * count).fill(Infinity)
  const before = new Int8Array((all + 1) * count).fill(-1)
  for (let i = 0; i < count; i++) best[(1 << i) * count + i] = apart(-1, i)
  for (let set = 1; set <= all; set++)
    for (let last = 0; last < count; last++) {
      const here = best[set * count + last]!
      if (here === Infinity) continue
      for (let next = 0; next < count; next++) {
        if (set & (1 << next)) continue
        const at = (set | (1 << next)) * count + next
        const there = here + apart(last, next)
        if (there < best[at]!) {
          best[at] = there
          before[at] = last
        }
      }
    }
  let last = 0
  for (let i = 1; i < count; i++)
    if (best[all * count + i]! + apart(i, -1) < best[all * count + last]! + apart(last, -1)) last = i
  const order: number[] = []
  for (let set = all; last >= 0;) {
    order.unshift(last)
    const previous = before[set * count + last]!
    set &= ~(1 << last)
    last = previous
  }
  return order
}

function nearestNext(count: number, apart: Apart): number[] {
  const left = new Set(Array.from({ length: count }, (_, i) => i))
  const order: number[] = []
  for (let at = -1; left.size > 0; at = order.at(-1)!) {
    const next = [...left].reduce((best, i) => (apart(at, i) < apart(at, best) ? i : best))
    left.delete(next)
    order.push(next)
  }
  return order
}

/** Metres by which an exchange must shorten the way to count: less is the rounding of sums. */
const SHORTER_m = 1e-6

function exchanged(start: readonly number[], apart: Apart): number[] {
  let order = [...start]
  for (let shorter = true; shorter;) {
    shorter = false
    for (let i = 0; i < order.length - 1; i++)
      for (let j = i + 1; j < order.length; j++) {
        const [a, b, c, d] = [
          i === 0 ? -1 : order[i - 1]!,
          order[i]!,
          order[j]!,
          j + 1 < order.length ? order[j + 1]! : -1,
        ]
        if (apart(a, c) + apart(b, d) >= apart(a, b) + apart(c, d) - SHORTER_m) continue
        order = [...order.slice(0, i), ...order.slice(i, j + 1).reverse(), ...order.slice(j + 1)]
        shorter = true
      }
  }
  return order
}
