import { constant, MOST_FAULTS, orOneMore, zero, type Polynomial } from './polynomial'

/**
 * What a set of k faults is worth beside the product of its odds, by k: P(k faults) over the sum of such products of
 * all sets of k parts (the elementary symmetric polynomial of their odds).
 * @param count weights of none, one, two … faults; more than are named, or than eight, have none
 * @param parts each part's odds, all its causes together
 */
export function countWeights(count: readonly number[], parts: Iterable<number>): Polynomial {
  let sums = constant(1)
  for (const odds of parts) sums = orOneMore(sums, odds)
  const whole = count.reduce((s, w) => s + w, 0)
  const weights = zero()
  for (let k = 0; k <= MOST_FAULTS; k++) weights[k] = sums[k]! > 0 ? (count[k] ?? 0) / whole / sums[k]! : 0
  return weights
}
