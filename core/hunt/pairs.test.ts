import { cells, hiddenOf } from '../../tests/made-cells'
import { logSum } from './normal'
import { EVERYTHING, USUAL_PRUNING, type Pruning, type Scored } from './pair-bounds'
import { addPairs, LISTED_WITHIN_NATS, type FaultSet } from './pairs'
import { LogSumAccumulator } from './log-sum'
import type { FaultHypothesis } from './variants'

const PARTS = 60
const partOf = (v: FaultHypothesis) => v.fault % PARTS
const logTwo = -1

/**
 * Made-up pairs: mostly the one hides the other where they meet, one in twenty does as well as anything could there.
 */
function made(seed: number, count: number) {
  const { list, best } = cells(seed, count)
  const gain = (s: Scored, t: Scored): number => {
    const hidden = hiddenOf(s, t) - s.odds - t.odds
    if ((s.variant.index + t.variant.index) % 20 !== 0) return hidden
    const lost = s.units.reduce((sum, u, k) => {
      const l = t.units.indexOf(u)
      if (l < 0) return sum
      const [g, h] = [s.gains[k]!, t.gains[l]!]
      return sum + best[u]! - (Math.abs(g) >= Math.abs(h) ? g : h)
    }, 0)
    return hidden + lost
  }
  const pairs = list.flatMap((s, a) =>
    list
      .slice(a + 1)
      .flatMap((t) =>
        partOf(s.variant) === partOf(t.variant) ? [] : [{ s, t, log: logTwo + s.odds + t.odds + gain(s, t) }],
      ),
  )
  return { list, best, gain, pairs, all: logSum(pairs.map((p) => p.log)) }
}

function weighed(
  { list, best, gain, all }: ReturnType<typeof made>,
  pruning: Pruning,
): { sums: LogSumAccumulator; found: FaultSet[] } {
  const [sums, found] = [new LogSumAccumulator(all, PARTS), [] as FaultSet[]]
  addPairs(
    list,
    { partOf, gain, best, evidenceLowerBound: all - 1, logTwo, scored: (v) => list[v.index]!, pruning },
    sums,
    found,
  )
  return { sums, found }
}

test('every pair of different parts is in the belief once, by its parts and as a whole; pruned by less than 1 in 10 000', () => {
  for (const seed of [11, 12, 13, 14])
    for (const count of [40, 260]) {
      const these = made(seed, count)
      const [whole, pruned] = [weighed(these, EVERYTHING), weighed(these, USUAL_PRUNING)]
      expect(whole.sums.all()).toBeCloseTo(these.all, 9)
      expect(Math.abs(Math.exp(pruned.sums.all() - these.all) - 1)).toBeLessThan(1e-4)
      for (let part = 0; part < PARTS; part++) {
        const truth = Math.exp(
          logSum(
            these.pairs.filter(({ s, t }) => [partOf(s.variant), partOf(t.variant)].includes(part)).map((p) => p.log),
          ) - these.all,
        )
        expect(Math.abs(Math.exp(whole.sums.of(part) - these.all) - truth)).toBeLessThan(1e-9)
        expect(Math.abs(Math.exp(pruned.sums.of(part) - these.all) - truth)).toBeLessThan(1e-4)
      }
    }
})

test('the likeliest pairs are listed with what they hold, none of them twice', () => {
  const these = made(21, 260)
  const { found } = weighed(these, USUAL_PRUNING)
  const name = (a: FaultHypothesis, b: FaultHypothesis) => [a.index, b.index].sort((x, y) => x - y).join()
  const listed = new Map(found.map(({ faults: [a, b], log }) => [name(a!, b!), log]))
  expect(listed.size).toBe(found.length)
  const truth = new Map(these.pairs.map(({ s, t, log }) => [name(s.variant, t.variant), log]))
  for (const [key, log] of listed) {
    expect(log).toBeCloseTo(truth.get(key)!, 9)
    expect(log).toBeGreaterThan(these.all - 1 - LISTED_WITHIN_NATS)
  }
  const first = [...truth].sort((x, y) => y[1] - x[1]).slice(0, 25)
  for (const [key] of first) expect(listed.has(key)).toBe(true)
})
