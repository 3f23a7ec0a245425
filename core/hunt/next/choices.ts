import { testKey } from '../../record'
import type { Explanation } from '../beliefs'
import type { Catalogue } from '../catalogue'
import type { Predictor } from '../memoize'
import type { Candidate, Crew } from '../tests'
import { answered } from './answers'
import type { Answered } from './forecast'
import { bitsAlone, WORTHLESS_BITS } from './bits'
import { chosen, type Best, type Pace } from './choose'
import { lookedAt, targetsOf, type Targets } from './targets'

/**
 * What a choice of test is made from: explanations with their belief, the parts they name, and the tests that tell
 * any apart.
 */
export interface Choices {
  readonly looked: readonly Explanation[]
  readonly target: Targets
  readonly tests: readonly Answered[]
}
export function choicesOf(
  catalogue: Catalogue,
  predictor: Predictor,
  explanations: readonly Explanation[],
  candidates: readonly Candidate[],
  done: ReadonlySet<string> = new Set(),
): Choices {
  const looked = lookedAt(explanations)
  const target = targetsOf(catalogue, looked)
  const tests = candidates.flatMap((c) => {
    const t = done.has(testKey(c.test)) ? null : answered(predictor, looked, target, c)
    return t && t.bits > WORTHLESS_BITS ? [t] : []
  })
  return { looked, target, tests }
}

/** The same choices once a test has given one of its answers: beliefs by Bayes' rule, that test left out. */
export function afterAnswer(
  { looked, target, tests }: Choices,
  made: Answered,
  answer: number,
): { readonly p: number; readonly then: Choices } {
  const p = looked.reduce((s, e, i) => s + e.p * made.rows[made.rowOf[i]! * made.answers + answer]!, 0)
  const now = looked.map((e, i) => ({ ...e, p: (e.p * made.rows[made.rowOf[i]! * made.answers + answer]!) / p }))
  const weights = new Float64Array(target.count)
  now.forEach((e, i) => {
    weights[target.of[i]!]! += e.p
  })
  const targets = { ...target, weights }
  return {
    p,
    then: {
      looked: now,
      target: targets,
      tests: tests.flatMap((t) => {
        const bits = t === made ? 0 : bitsAlone(now, t.rows, t.rowOf, t.answers, targets)
        return bits > WORTHLESS_BITS ? [{ ...t, bits }] : []
      }),
    },
  }
}

/**
 * The test that tells most about which part is at fault for the minutes it takes: at each place the best few tests
 * are taken as one, since opening a box is paid once; the place whose tests tell most per minute gives the first of
 * them.
 */
export function choose(pace: Pace, crew: Crew, { looked, target, tests }: Choices): Best | null {
  return chosen(pace, crew, {
    looked,
    target,
    prospects: tests.map((t) => ({ candidate: t.candidate, bits: t.bits, made: () => t })),
  })
}
