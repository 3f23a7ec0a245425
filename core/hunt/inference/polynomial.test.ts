import { seeded } from '../../../tests/random-site'
import { countWeights } from './count'
import { constant, dot, MOST_FAULTS, orOneMore, othersOf, times, withoutOne } from './polynomial'

test('sets of so many faults: products of their odds as adding every set up; the odds of their number come out of it', () => {
  const random = seeded(5)
  const odds = Array.from({ length: 11 }, () => random() / 10)
  const byHand = new Float64Array(odds.length + 1)
  for (let set = 0; set < 1 << odds.length; set++) {
    const members = odds.filter((_, i) => set & (1 << i))
    byHand[members.length]! += members.reduce((p, o) => p * o, 1)
  }
  const product = odds.reduce((p, o) => orOneMore(p, o), constant(1))
  product.forEach((sum, k) => expect(sum).toBeCloseTo(byHand[k]!, 14))
  const count = [15, 60, 25, 5, 1]
  const weights = countWeights(count, odds)
  for (let k = 0; k <= MOST_FAULTS; k++) expect(weights[k]! * byHand[k]!).toBeCloseTo((count[k] ?? 0) / 106, 12)
  expect(dot(weights, product)).toBeCloseTo(1, 12)

  // One part less, and all but one of some.
  const less = withoutOne(product, odds[3]!)
  const others = odds.filter((_, i) => i !== 3).reduce((p, o) => orOneMore(p, o), constant(1))
  less.forEach((sum, k) => expect(sum).toBeCloseTo(others[k]!, 14))
  const factors = odds.slice(0, 5).map((o) => orOneMore(constant(1), o))
  const made = othersOf(factors)
  factors.forEach((f, i) => {
    times(made.others[i]!, f).forEach((sum, k) => expect(sum).toBeCloseTo(made.all[k]!, 14))
  })
})
