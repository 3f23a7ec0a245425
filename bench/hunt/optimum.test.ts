import { afterAnswer, minutesOf, NAMED, type Choices, type Crew } from '../../core/hunt'
import { WRONG_min } from './crew'
import { caseOf } from './draw'
import { expected, gameOf, greedy, optimum, ours, type Game } from './optimum'

const games = (count: number): Game[] => {
  const found: Game[] = []
  for (let seed = 1; found.length < count; seed++) {
    const game = gameOf(caseOf(9000 + seed, { stations: 3 }))
    // Small enough to try every order of tests one after the other.
    if (game && game.choices.tests.length > 2)
      found.push({ ...game, choices: { ...game.choices, tests: game.choices.tests.slice(0, 4) } })
  }
  return found
}
const mostIn = ({ target }: Choices) => Math.max(...target.weights)

/** Every order of tests, nothing remembered and nothing given up. */
function outright({ pace, crew, choices }: Game): number {
  const go = (at: Crew, now: Choices): number => {
    const top = mostIn(now)
    if (top >= NAMED) return (1 - top) * WRONG_min
    if (now.tests.length === 0) return WRONG_min
    return Math.min(
      WRONG_min,
      ...now.tests.map((t) => {
        const step = minutesOf(pace.context, pace.costs, pace.walking, at, t.candidate)
        const answers = Array.from({ length: t.answers }, (_, b) => afterAnswer(now, t, b)).filter((a) => a.p > 0.01)
        const whole = answers.reduce((s, a) => s + a.p, 0)
        return step.minutes + answers.reduce((s, a) => s + (a.p / whole) * go(step.then, a.then), 0)
      }),
    )
  }
  return go(crew, choices)
}

test('the optimum is what trying every order of tests comes to, and no player does better', () => {
  for (const game of games(6)) {
    const best = optimum(game, 100_000)!
    expect(best).toBeCloseTo(outright(game), 3)
    for (const player of [ours, greedy]) expect(expected(game, player)).toBeGreaterThan(best - 1e-3)
  }
})

test('a game with more states than allowed is not solved by halves', () => {
  const [game] = games(1)
  expect(optimum(game!, 0)).toBeNull()
})

test('beliefs after an answer follow Bayes’ rule: mixed by how likely each answer is, they are what they were', () => {
  for (const { choices } of games(4))
    for (const made of choices.tests) {
      const answers = Array.from({ length: made.answers }, (_, b) => afterAnswer(choices, made, b)).filter(
        (a) => a.p > 1e-9,
      )
      expect(answers.reduce((s, a) => s + a.p, 0)).toBeCloseTo(1, 6)
      choices.looked.forEach((e, i) =>
        expect(answers.reduce((s, a) => s + a.p * a.then.looked[i]!.p, 0)).toBeCloseTo(e.p, 6),
      )
      for (const a of answers) {
        expect(a.then.tests).not.toContain(made)
        expect([...a.then.target.weights].reduce((s, w) => s + w, 0)).toBeCloseTo(1, 6)
      }
      // What is told on average is what the test was said to tell.
      const entropy = (c: Choices) => [...c.target.weights].reduce((s, w) => s - (w > 0 ? w * Math.log2(w) : 0), 0)
      expect(entropy(choices) - answers.reduce((s, a) => s + a.p * entropy(a.then), 0)).toBeCloseTo(made.bits, 6)
    }
})
