import {
  afterAnswer,
  crewAt,
  choicesOf,
  choose,
  huntOf,
  minutesOf,
  NAMED,
  oddsBasis,
  USUAL_COSTS,
  type Answered,
  type Choices,
  type Crew,
  type Explanation,
  type Pace,
} from '../../core/hunt'
import { getOrThrow, type TerminalId } from '../../core/site'
import { WRONG_min } from './crew'
import { METER, waterTest, type Case } from './draw'
import { A } from './draw-fault'

/**
 * A small hunt as a game that can be solved: beliefs after the symptoms, tests with finitely many answers, and what
 * each costs.
 */
export interface Game {
  readonly pace: Pace
  readonly crew: Crew
  readonly choices: Choices
}

/** Answers rarer than this are left out, and the others share their odds: for every player alike. */
const RARE = 0.01

/**
 * Explanations that a game is played with, the likeliest: one fault, and one cell of its grid for each cause at a
 * part.
 */
const PLAYED = 10
/** Tests that a game is played with: those that tell most, and those that tell most per minute. */
const [MOST_TELLING, CHEAPEST] = [8, 6]

/** The game of a case once its symptoms are told; null where nothing is left to be measured. */
export function gameOf(c: Case): Game | null {
  const hunt = huntOf(c.site, A, {
    meter: METER,
    known: c.known,
    odds: oddsBasis.parse({ count: [0, 1] }),
  })!
  const field = c.field(c.faults)
  for (const t of Object.values(c.site.stations).map((s): TerminalId => s.terminal))
    hunt.take({ test: waterTest(t), value: field.answer(waterTest(t), METER) })
  const byFault = new Map<number, Explanation>()
  for (const e of [...hunt.beliefs().islands.flat(), ...hunt.beliefs().unread])
    for (const v of e.faults) {
      const known = byFault.get(v.fault)
      byFault.set(v.fault, known ? { ...known, p: known.p + e.p } : e)
    }
  const played = [...byFault.values()].sort((a, b) => b.p - a.p).slice(0, PLAYED)
  const every = choicesOf(hunt.catalogue, hunt.predictor, played, hunt.candidates)
  const pace: Pace = { context: hunt.context, costs: USUAL_COSTS, walking: hunt.walking }
  const crew = crewAt(getOrThrow(c.site.controllers, A).place)
  const choices = { ...every, tests: menuOf(pace, crew, every.tests) }
  return choices.target.count > 1 && ended(choices) === null ? { pace, crew, choices } : null
}

/** Of tests that are set up alike and tell the same, one; of those some. */
function menuOf({ context, costs, walking }: Pace, crew: Crew, tests: readonly Answered[]): Answered[] {
  const tells = ({ rows, rowOf, answers }: Answered) =>
    [...rowOf].map((r) => Array.from(rows.slice(r * answers, (r + 1) * answers), (p) => p.toFixed(2)).join())
  const alike = new Map(
    tests.map((t) => [[t.candidate.place, JSON.stringify(t.candidate.needs), ...tells(t)].join(' '), t] as const),
  )
  const distinct = [...alike.values()]
  const rate = (t: Answered) => t.bits / minutesOf(context, costs, walking, crew, t.candidate).minutes
  return [
    ...new Set([
      ...[...distinct].sort((a, b) => b.bits - a.bits).slice(0, MOST_TELLING),
      ...[...distinct].sort((a, b) => rate(b) - rate(a)).slice(0, CHEAPEST),
    ]),
  ]
}

/**
 * Minutes that the end of a hunt costs, or null while it goes on: a name may be wrong; without a test left the rest
 * is searched.
 */
function ended({ target, tests }: Choices): number | null {
  const most = Math.max(0, ...target.weights)
  return most >= NAMED ? (1 - most) * WRONG_min : tests.length === 0 ? WRONG_min : null
}

/** The answers of a test that are not rare, with their chances and what is believed then. */
function answersOf(
  choices: Choices,
  test: Answered,
): { readonly p: number; readonly answer: number; readonly then: Choices }[] {
  const all = Array.from({ length: test.answers }, (_, answer) => ({
    answer,
    ...afterAnswer(choices, test, answer),
  })).filter(({ p }) => p > RARE)
  const whole = all.reduce((s, { p }) => s + p, 0)
  return all.map((a) => ({ ...a, p: a.p / whole }))
}

export type Player = (pace: Pace, crew: Crew, choices: Choices) => Answered | null
/** The hunt's own choice. */
export const ours: Player = (pace, crew, choices) => choose(pace, crew, choices)?.first ?? null
/** The most bits per minute of one test by itself. */
export const greedy: Player = ({ context, costs, walking }, crew, { tests }) =>
  tests.reduce<{ t: Answered; rate: number } | null>((best, t) => {
    const rate = t.bits / minutesOf(context, costs, walking, crew, t.candidate).minutes
    return best === null || rate > best.rate ? { t, rate } : best
  }, null)?.t ?? null

/** Minutes that a player is expected to take, over every way the game can go. */
export function expected({ pace, crew, choices }: Game, player: Player): number {
  const end = ended(choices)
  if (end !== null) return end
  const test = player(pace, crew, choices)
  if (test === null) return WRONG_min
  const step = minutesOf(pace.context, pace.costs, pace.walking, crew, test.candidate)
  return (
    step.minutes +
    answersOf(choices, test).reduce((s, a) => s + a.p * expected({ pace, crew: step.then, choices: a.then }, player), 0)
  )
}

/**
 * The fewest minutes that any order of tests can be expected to take: dynamic programming over what was answered and
 * where the crew stands, each state worked out once, a test given up as soon as it cannot be the best. Null where
 * there are more states than `most`: the case is not small.
 */
export function optimum({ pace, crew, choices }: Game, most: number): number | null {
  const { looked, target, tests } = choices
  // Answers row by row for every explanation; a state is the belief in each and the tests that are left.
  const tables = tests.map((t) =>
    Array.from({ length: t.answers }, (_, b) =>
      Float64Array.from(looked, (_, i) => t.rows[t.rowOf[i]! * t.answers + b]!),
    ),
  )
  const minutes = (at: Crew, k: number) => minutesOf(pace.context, pace.costs, pace.walking, at, tests[k]!.candidate)
  const sums = new Float64Array(target.count)
  const mostIn = (belief: Float64Array): number => {
    sums.fill(0)
    let top = 0
    belief.forEach((p, i) => {
      const t = target.of[i]!
      sums[t]! += p
      if (sums[t]! > top) top = sums[t]!
    })
    return top
  }
  /** Whether a test's answer still depends on which explanation is so. */
  const tells = (belief: Float64Array, k: number) =>
    tables[k]!.some((row) => {
      let [low, high] = [1, 0]
      belief.forEach((p, i) => {
        if (p > 1e-6) {
          low = Math.min(low, row[i]!)
          high = Math.max(high, row[i]!)
        }
      })
      return high - low > 1e-3
    })
  const endOf = (belief: Float64Array, left: readonly number[]): number | null => {
    const top = mostIn(belief)
    return top >= NAMED ? (1 - top) * WRONG_min : left.length === 0 ? WRONG_min : null
  }
  const known = new Map<string, number>()
  let states = 0
  function best(at: Crew, belief: Float64Array, left: readonly number[]): number {
    const end = endOf(belief, left)
    if (end !== null) return end
    const [opened, undone] = [at.opened, at.undone].map((places) => [...places].sort().join())
    const believed = Array.from(belief, (p) => p.toPrecision(7)).join()
    const key = [at.place, at.set?.kind, at.set?.terminal, opened, undone, left.join(), believed].join(' ')
    const before = known.get(key)
    if (before !== undefined) return before
    if (++states > most) return NaN
    const steps = left
      .map((k) => {
        const step = minutes(at, k)
        const answers = tables[k]!.flatMap((row) => {
          let p = 0
          belief.forEach((w, i) => {
            p += w * row[i]!
          })
          return p > RARE ? [{ p, belief: belief.map((w, i) => (w * row[i]!) / p) }] : []
        })
        const whole = answers.reduce((s, a) => s + a.p, 0)
        const then = answers.map((a) => {
          const rest = left.filter((j) => j !== k && tells(a.belief, j))
          return {
            ...a,
            p: a.p / whole,
            rest,
            hope: endOf(a.belief, rest) ?? rest.reduce((m, j) => Math.min(m, minutes(step.then, j).minutes), WRONG_min),
          }
        })
        return { step, then, hope: step.minutes + then.reduce((s, a) => s + a.p * a.hope, 0) }
      })
      .sort((x, y) => x.hope - y.hope)
    let found = WRONG_min
    for (const { step, then, hope } of steps) {
      let sum = hope
      for (const a of then) {
        if (sum >= found) break
        sum += a.p * (best(step.then, a.belief, a.rest) - a.hope)
      }
      if (Number.isNaN(sum)) return NaN
      found = Math.min(found, sum)
    }
    known.set(key, found)
    return found
  }
  const found = best(
    crew,
    Float64Array.from(looked, (e) => e.p),
    tests.map((_, k) => k),
  )
  return Number.isNaN(found) ? null : found
}
