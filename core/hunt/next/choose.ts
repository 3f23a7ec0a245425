import { testKey } from '../../record'
import type { PlaceId } from '../../site'
import type { Explanation } from '../beliefs'
import type { Catalogue, Fault } from '../catalogue'
import type { HuntContext } from '../context'
import type { Predictor } from '../memoize'
import { minutesOf, type Candidate, type Costs, type Crew, type Walking } from '../tests'
import { answered, MOST_ANSWERS } from './answers'
import type { Answered } from './forecast'
import { bitsOf, entropyOf, entropyTerm, multiplied, WORTHLESS_BITS } from './bits'
import { lookedAt, targetsOf, type Targets } from './targets'

/** Tests taken together at one place before the crew walks on. */
const AT_ONE_PLACE = 4
const MOST_CELLS = 48

/** How long a crew takes to anything. */
export interface Pace {
  readonly context: HuntContext
  readonly costs: Costs
  readonly walking: Walking
}

/** The first test to make where tests tell most, and what they tell there, bits a minute. */
export interface Best {
  readonly first: Answered
  readonly rate: number
}

/** A test by what it tells at most, worked out only when that may matter. */
interface Prospect {
  readonly candidate: Candidate
  readonly bits: number
  readonly made: () => Answered | null
}

/** Explanations, the parts of them that are to be told apart, and the tests that may do so. */
export interface Prospects {
  readonly looked: readonly Explanation[]
  readonly target: Targets
  readonly prospects: readonly Prospect[]
}

/**
 * What may be chosen from, without working every test out. An answer tells no more than whether one of the faults
 * that show in it is there, and which of its answers then comes: h(p) + p·log₂(answers), p being their belief.
 */
export function prospectsOf(
  catalogue: Catalogue,
  predictor: Predictor,
  explanations: readonly Explanation[],
  candidates: readonly Candidate[],
  done: ReadonlySet<string> = new Set(),
  among: ReadonlySet<string> | null = null,
): Prospects {
  const looked = lookedAt(explanations)
  const target = targetsOf(catalogue, looked, among)
  const belief = new Map<Fault, number>()
  for (const e of looked)
    for (const v of e.faults) {
      const f = catalogue.faults[v.fault]!
      belief.set(f, (belief.get(f) ?? 0) + e.p)
    }
  const bitsLeft = entropyOf(target.weights)
  const prospects = candidates.flatMap((candidate): Prospect[] => {
    if (done.has(testKey(candidate.test))) return []
    let p = 0
    for (const [f, q] of belief) if (predictor.mayAffect(candidate.test, f)) p += q
    if (p === 0) return []
    const most = Math.min(
      bitsLeft,
      p < 0.5 ? entropyTerm(p) + entropyTerm(1 - p) + p * Math.log2(MOST_ANSWERS + 1) : 1 + Math.log2(MOST_ANSWERS + 1),
    )
    return most > WORTHLESS_BITS
      ? [
          {
            candidate,
            bits: most,
            made: () => {
              const t = answered(predictor, looked, target, candidate)
              return t && t.bits > WORTHLESS_BITS ? t : null
            },
          },
        ]
      : []
  })
  return { looked, target, prospects }
}

export function chosen(pace: Pace, crew: Crew, { looked, target, prospects }: Prospects): Best | null {
  const places = new Map<PlaceId, Prospect[]>()
  for (const t of prospects) {
    const list = places.get(t.candidate.place)
    if (list) list.push(t)
    else places.set(t.candidate.place, [t])
  }
  const bitsLeft = entropyOf(target.weights)
  const ranked = [...places.values()]
    .map((list) => ({ list, hope: hopeOf(pace, crew, list, bitsLeft) }))
    .sort((a, b) => b.hope - a.hope)
  let best: Best | null = null
  for (const { list, hope } of ranked) {
    if (best !== null && hope < best.rate) break
    const made = list.flatMap((t) => t.made() ?? [])
    if (made.length === 0 || (best !== null && hopeOf(pace, crew, made, bitsLeft) < best.rate)) continue
    const here = bestAtPlace(pace, crew, looked, target, made)
    if (here && (best === null || here.rate > best.rate)) best = here
  }
  return best
}

export const minutesFor = ({ context, costs, walking }: Pace, crew: Crew, candidate: Candidate) =>
  minutesOf(context, costs, walking, crew, candidate)

/**
 * What a place's tests tell per minute at most, as if none told what another had told and only the first had to be
 * walked to.
 */
function hopeOf(
  pace: Pace,
  crew: Crew,
  list: readonly { readonly candidate: Candidate; readonly bits: number }[],
  bitsLeft: number,
): number {
  const minutes = list.reduce((least, t) => Math.min(least, minutesFor(pace, crew, t.candidate).minutes), Infinity)
  const bits = list
    .map((t) => t.bits)
    .sort((a, b) => b - a)
    .slice(0, AT_ONE_PLACE)
  let [sum, most] = [0, 0]
  bits.forEach((b, k) => {
    sum = Math.min(bitsLeft, sum + b)
    most = Math.max(most, sum / (minutes + k * pace.costs.further_min))
  })
  return most
}

function bestAtPlace(
  pace: Pace,
  crew: Crew,
  looked: readonly Explanation[],
  target: Targets,
  list: readonly Answered[],
): Best | null {
  let [at, minutes] = [crew, 0]
  let cells: Float64Array = Float64Array.from(looked, (e) => e.p)
  let count = 1
  let told = 0
  let best: Best | null = null
  let first: Answered | null = null
  const rest = [...list].sort((a, b) => b.bits - a.bits).slice(0, 14)
  for (let k = 0; k < AT_ONE_PLACE && rest.length > 0; k++) {
    let choice: { t: Answered; rate: number; told: number; minutes: number; then: Crew } | null = null
    for (const t of rest) {
      const step = minutesFor(pace, at, t.candidate)
      const bits = k === 0 ? t.bits : bitsOf(cells, count, looked.length, t, target)
      const rate = bits / (minutes + step.minutes)
      if (choice === null || rate > choice.rate)
        choice = { t, rate, told: bits, minutes: minutes + step.minutes, then: step.then }
    }
    if (!choice) break
    first ??= choice.t
    if (best === null || choice.rate > best.rate) best = { first, rate: choice.rate }
    if (choice.told - told < WORTHLESS_BITS) break
    ;[told, minutes, at, cells, count] = [
      choice.told,
      choice.minutes,
      choice.then,
      multiplied(cells, count, looked.length, choice.t),
      count * choice.t.answers,
    ]
    rest.splice(rest.indexOf(choice.t), 1)
    if (count > MOST_CELLS) break
  }
  return best
}
