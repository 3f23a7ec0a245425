import type { Explanation } from '../beliefs'
import type { Answered } from './forecast'
import type { Targets } from './targets'

/** A test that tells less than this is none, bits. */
export const WORTHLESS_BITS = 5e-4

export const entropyTerm = (p: number) => (p > 0 ? -p * Math.log2(p) : 0)

export const entropyOf = (weights: Float64Array): number => {
  let h = 0
  for (const p of weights) h += entropyTerm(p)
  return h
}

/** Bits that one test's answer tells about the target: H(answer) − H(answer | target). */
export function bitsAlone(
  looked: readonly Explanation[],
  rows: Float64Array,
  rowOf: Int32Array,
  answers: number,
  target: Targets,
): number {
  // A target all of whose explanations foresee the same has that row; only the others have a mixture of their own.
  const rowOfTarget = new Int32Array(target.count).fill(-1)
  looked.forEach((_, i) => {
    const t = target.of[i]!
    rowOfTarget[t] = rowOfTarget[t] === -1 || rowOfTarget[t] === rowOf[i] ? rowOf[i]! : -2
  })
  const mixed = new Map<number, Float64Array>()
  const byRow = new Float64Array(rows.length / answers)
  looked.forEach((e, i) => {
    byRow[rowOf[i]!]! += e.p
    const t = target.of[i]!
    if (rowOfTarget[t] !== -2) return
    const mix = mixed.get(t) ?? mixed.set(t, new Float64Array(answers)).get(t)!
    for (let b = 0; b < answers; b++) mix[b]! += e.p * rows[rowOf[i]! * answers + b]!
  })
  let [whole, given] = [0, 0]
  for (let b = 0; b < answers; b++) {
    let sum = 0
    for (let r = 0; r < byRow.length; r++) sum += byRow[r]! * rows[r * answers + b]!
    whole += entropyTerm(sum)
  }
  const entropies = byRow.map((_, r) => {
    let h = 0
    for (let b = 0; b < answers; b++) h += entropyTerm(rows[r * answers + b]!)
    return h
  })
  for (let t = 0; t < target.count; t++)
    if (rowOfTarget[t]! >= 0) given += target.weights[t]! * entropies[rowOfTarget[t]!]!
  for (const [t, mix] of mixed) given += entropyOf(mix) - entropyTerm(target.weights[t]!)
  return Math.max(0, whole - given)
}

/**
 * Bits that cells of answers, each further parted by one more test, tell about the target: H(cells) − H(cells |
 * target).
 */
export function bitsOf(
  weights: Float64Array,
  blocks: number,
  n: number,
  { rows, rowOf, answers }: Answered,
  target: Targets,
): number {
  let [whole, given] = [0, 0]
  const cell = new Float64Array(target.count * answers)
  const sums = new Float64Array(answers)
  for (let block = 0; block < blocks; block++) {
    cell.fill(0)
    sums.fill(0)
    for (let i = 0; i < n; i++) {
      const w = weights[block * n + i]!
      if (w < 1e-12) continue
      const [from, to] = [rowOf[i]! * answers, target.of[i]! * answers]
      for (let b = 0; b < answers; b++) {
        const p = w * rows[from + b]!
        sums[b]! += p
        cell[to + b]! += p
      }
    }
    whole += entropyOf(sums)
    given += entropyOf(cell)
  }
  return Math.max(0, whole - (given - entropyOf(target.weights)))
}

/** The chance of every answer so far together with each answer of one more test. */
export function multiplied(
  cells: Float64Array,
  count: number,
  n: number,
  { rows, rowOf, answers }: Answered,
): Float64Array {
  const made = new Float64Array(count * answers * n)
  for (let c = 0; c < count; c++)
    for (let b = 0; b < answers; b++)
      for (let i = 0; i < n; i++) made[(c * answers + b) * n + i] = cells[c * n + i]! * rows[rowOf[i]! * answers + b]!
  return made
}
