import type { Beliefs, Explanation } from '../beliefs'
import type { Candidate, Crew } from '../tests'
import type { AnswerForecast, Answered } from './forecast'
import { chosen, minutesFor, type Best, type Pace, type Prospects } from './choose'
import type { Targets } from './targets'

export interface Advice {
  readonly candidate: Candidate
  readonly minutes: number
  readonly bits: number
  readonly bitsPerMinute: number
  readonly outcomes: readonly AnswerForecast[]
}

/** What no reading shows is asked after more slowly than what is wrong for certain. */
const UNREAD_WORTH = 0.3
/** Explanations that are told apart by tests of their own, and what a bit of theirs is worth. */
export const offers = ({
  islands,
  unread,
}: Beliefs): { readonly told: readonly Explanation[]; readonly worth: number }[] => [
  ...islands.map((told) => ({ told, worth: 1 })),
  { told: unread, worth: UNREAD_WORTH },
]

/** What is to be told apart, with the test that tells most of it per minute. */
export interface Considered {
  readonly choices: Prospects
  readonly best: Best
}

/** The best test for some explanations; null where none tells anything. */
export function consider(pace: Pace, crew: Crew, choices: Prospects): Considered | null {
  const best = chosen(pace, crew, choices)
  return best && { choices, best }
}

/** Of several the one that tells most per minute, by what its bits are worth; null of none. */
export const mostTelling = <T extends { readonly considered: Considered; readonly worth: number }>(
  every: readonly T[],
): T | null =>
  every.reduce<T | null>(
    (m, o) => (m && m.considered.best.rate * m.worth >= o.considered.best.rate * o.worth ? m : o),
    null,
  )

/** A test to make, and what its answers would mean. */
export function adviceOf(pace: Pace, crew: Crew, { choices, best }: Considered): Advice {
  const { candidate, bits } = best.first
  return {
    candidate,
    minutes: minutesFor(pace, crew, candidate).minutes,
    bits,
    bitsPerMinute: best.rate,
    outcomes: outcomesOf(choices.looked, choices.target, best.first),
  }
}

function outcomesOf(looked: readonly Explanation[], target: Targets, t: Answered): AnswerForecast[] {
  return t.kinds
    .map((kind, b): AnswerForecast => {
      const sums = new Float64Array(target.count)
      let p = 0
      looked.forEach((e, i) => {
        const w = e.p * t.rows[t.rowOf[i]! * t.answers + b]!
        sums[target.of[i]!]! += w
        p += w
      })
      const parts = [...sums]
        .map((w, k) => ({ key: target.keys[k]!, p: p > 0 ? w / p : 0 }))
        .sort((x, y) => y.p - x.p)
        .slice(0, 3)
        .filter((x) => x.p > 0.05)
      return {
        p,
        kind,
        low: kind === 'figure' && b > 0 ? t.cuts[b - 1]! : null,
        high: kind === 'figure' && b < t.cuts.length ? t.cuts[b]! : null,
        parts,
      }
    })
    .filter((o) => o.p > 0.005)
}
