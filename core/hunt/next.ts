import { testKey } from '../record'
import type { PlaceId } from '../site'
import type { Beliefs, Explanation } from './beliefs'
import { blurAt, type Prediction } from './predict'
import type { HuntContext } from './context'
import { normalBelow } from './normal'
import type { Predictor } from './memoize'
import { minutesOf, type Candidate, type Costs, type Crew, type Walking } from './tests'
import type { Catalogue, Fault } from './catalogue'

/** What one answer of a test would mean: a range of readings, or a word. */
export interface AnswerForecast {
  readonly p: number
  readonly low: number | null
  readonly high: number | null
  /** `open`, `yes`, `no`, or a figure between `low` and `high`. */
  readonly kind: 'figure' | 'open' | 'yes' | 'no' | 'lamp_short' | 'lamp_open' | 'lamp_good'
  /** The parts that would then be likeliest; null is "nothing". */
  readonly parts: readonly { readonly key: string | null; readonly p: number }[]
}

export interface Advice {
  readonly candidate: Candidate
  readonly minutes: number
  readonly bits: number
  readonly bitsPerMinute: number
  readonly outcomes: readonly AnswerForecast[]
}

/** Explanations that the choice of a test looks at: those that hold nearly all of the belief. */
const LOOKED_AT = 0.998
const MOST_LOOKED_AT = 240
/** Figures of a test that lie nearer than this many deviations are one answer. */
const APART = 1.2
const MOST_ANSWERS = 10
/** Tests taken together at one place before the crew walks on. */
const AT_ONE_PLACE = 4
const MOST_CELLS = 48
/** A test that tells less than this is none, bits. */
export const WORTHLESS_BITS = 5e-4

/** A test with the chance of each answer: a row for every distinct prediction, and which of them an explanation has. */
export interface Answered {
  readonly candidate: Candidate
  readonly answers: number
  readonly rows: Float64Array
  readonly rowOf: Int32Array
  readonly bits: number
  readonly cuts: readonly number[]
  readonly kinds: readonly AnswerForecast['kind'][]
}

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

/** How long a crew takes to anything. */
export interface Pace {
  readonly context: HuntContext
  readonly costs: Costs
  readonly walking: Walking
}

/** A test by what it tells at most, worked out only when that may matter. */
interface Prospect {
  readonly candidate: Candidate
  readonly bits: number
  readonly made: () => Answered | null
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
): { readonly looked: readonly Explanation[]; readonly target: Targets; readonly prospects: readonly Prospect[] } {
  const looked = lookedAt(explanations)
  const target = targetsOf(catalogue, looked)
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

/**
 * The test that tells most about which part is at fault for the minutes it takes: at each place the best few tests
 * are taken as one, since opening a box is paid once; the place whose tests tell most per minute gives the first of
 * them.
 */
export function choose(
  pace: Pace,
  crew: Crew,
  { looked, target, tests }: Choices,
): { readonly first: Answered; readonly rate: number } | null {
  return chosen(pace, crew, {
    looked,
    target,
    prospects: tests.map((t) => ({ candidate: t.candidate, bits: t.bits, made: () => t })),
  })
}

function chosen(
  pace: Pace,
  crew: Crew,
  { looked, target, prospects }: ReturnType<typeof prospectsOf>,
): { readonly first: Answered; readonly rate: number } | null {
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
  let best: { first: Answered; rate: number } | null = null
  for (const { list, hope } of ranked) {
    if (best !== null && hope < best.rate) break
    const made = list.flatMap((t) => t.made() ?? [])
    if (made.length === 0 || (best !== null && hopeOf(pace, crew, made, bitsLeft) < best.rate)) continue
    const here = bestAtPlace(pace, crew, looked, target, made)
    if (here && (best === null || here.rate > best.rate)) best = here
  }
  return best
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
interface Offered extends ReturnType<typeof prospectsOf> {
  readonly worth: number
}

/**
 * The test to make next and what its answers would mean: of all that is to be told apart the one that tells most per
 * minute; null where none tells anything.
 */
export function nextTest(pace: Pace, crew: Crew, every: readonly Offered[]): Advice | null {
  const offered = every.flatMap((choices) => {
    const best = chosen(pace, crew, choices)
    return best ? [{ choices, best }] : []
  })
  if (offered.length === 0) return null
  const { choices, best } = offered.reduce((m, o) =>
    o.best.rate * o.choices.worth > m.best.rate * m.choices.worth ? o : m,
  )
  const { candidate, bits } = best.first
  return {
    candidate,
    minutes: minutesFor(pace, crew, candidate).minutes,
    bits,
    bitsPerMinute: best.rate,
    outcomes: outcomesOf(choices.looked, choices.target, best.first),
  }
}

const minutesFor = ({ context, costs, walking }: Pace, crew: Crew, candidate: Candidate) =>
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
): { first: Answered; rate: number } | null {
  let [at, minutes] = [crew, 0]
  let cells: Float64Array = Float64Array.from(looked, (e) => e.p)
  let count = 1
  let told = 0
  let best: { first: Answered; rate: number } | null = null
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

/**
 * Explanations by the part that is to be mended first: of two faults the one that is believed more. Which second one
 * there may be is asked once the first is mended. `keys`: null is "nothing"; `faults`: every fault that is among
 * them.
 */
export interface Targets {
  readonly of: Int32Array
  readonly count: number
  readonly weights: Float64Array
  readonly keys: readonly (string | null)[]
  readonly faults: readonly Fault[]
}
function targetsOf(catalogue: Catalogue, looked: readonly Explanation[]): Targets {
  const believed = new Map<string, number>()
  const faults = new Set<Fault>()
  const keysOf = (e: Explanation) => [...new Set(e.faults.map((v) => catalogue.faults[v.fault]!.key))]
  for (const e of looked) {
    for (const v of e.faults) faults.add(catalogue.faults[v.fault]!)
    for (const key of keysOf(e)) believed.set(key, (believed.get(key) ?? 0) + e.p)
  }
  const numbers = new Map<string | null, number>()
  const keys: (string | null)[] = []
  const of = Int32Array.from(looked, (e) => {
    const first = keysOf(e).sort((a, b) => believed.get(b)! - believed.get(a)! || (a < b ? -1 : 1))[0] ?? null
    if (!numbers.has(first)) {
      numbers.set(first, numbers.size)
      keys.push(first)
    }
    return numbers.get(first)!
  })
  const weights = new Float64Array(numbers.size)
  looked.forEach((e, i) => {
    weights[of[i]!]! += e.p
  })
  return { of, count: numbers.size, weights, keys, faults: [...faults] }
}

function lookedAt(explanations: readonly Explanation[]): Explanation[] {
  const chosen: Explanation[] = []
  let sum = 0
  for (const e of explanations) {
    if (chosen.length >= MOST_LOOKED_AT || sum > LOOKED_AT) break
    chosen.push(e)
    sum += e.p
  }
  return sum === 0 ? [] : chosen.map((e) => ({ ...e, p: e.p / sum }))
}

/** The chance of every answer under every explanation; null where the test says nothing. */
function answered(
  predictor: Predictor,
  looked: readonly Explanation[],
  target: Targets,
  candidate: Candidate,
): Answered | null {
  const { test } = candidate
  const base = predictor.base(test)
  if (base === null) return null
  const touching = new Set(target.faults.flatMap((f) => (predictor.mayAffect(test, f) ? [f.index] : [])))
  if (touching.size === 0) return null
  const distinct = new Map<Prediction, number>([[base, 0]])
  const seen: { s: Prediction; p: number }[] = [{ s: base, p: 0 }]
  const rowOf = Int32Array.from(looked, ({ faults, p }) => {
    const s = faults.some((v) => touching.has(v.fault)) ? (predictor.under(test, faults) ?? base) : base
    let row = distinct.get(s)
    if (row === undefined) {
      row = seen.length
      distinct.set(s, row)
      seen.push({ s, p: 0 })
    }
    seen[row]!.p += p
    return row
  })
  if (seen.length === 1) return null
  const cuts = cutsOf(seen)
  const kinds = kindsOf(base, cuts)
  const answers = kinds.length
  const rows = new Float64Array(seen.length * answers)
  seen.forEach(({ s }, k) => rows.set(chances(s, cuts, kinds), k * answers))
  return { candidate, answers, rows, rowOf, cuts, kinds, bits: bitsAlone(looked, rows, rowOf, answers, target) }
}

const middle = (s: Prediction): { mean: number; sd: number } | null =>
  s.kind === 'ohms'
    ? { mean: s.mean, sd: Math.hypot(blurAt(s, s.mean), ...s.figures, ...s.coils.map(([, c]) => c * 0.035)) }
    : s.kind === 'volts'
      ? { mean: s.mean, sd: s.sd }
      : null

/** Figures between which a reading tells the explanations apart. */
function cutsOf(seen: readonly { s: Prediction; p: number }[]): number[] {
  const groups: { mean: number; sd: number; p: number }[] = []
  const listed = seen
    .flatMap(({ s, p }) => {
      const m = p > 0 ? middle(s.kind === 'either' ? s.well : s) : null
      return m ? [{ ...m, p }] : []
    })
    .sort((a, b) => a.mean - b.mean)
  for (const m of listed) {
    const last = groups.at(-1)
    if (last && m.mean - last.mean < APART * Math.max(m.sd, last.sd)) {
      const p = last.p + m.p
      last.mean = (last.mean * last.p + m.mean * m.p) / p
      last.sd = Math.max(last.sd, m.sd)
      last.p = p
    } else groups.push({ ...m })
  }
  const kept =
    groups.length <= MOST_ANSWERS
      ? groups
      : [...groups]
          .sort((a, b) => b.p - a.p)
          .slice(0, MOST_ANSWERS)
          .sort((a, b) => a.mean - b.mean)
  return kept.slice(1).map((g, i) => {
    const l = kept[i]!
    return (l.mean * g.sd + g.mean * l.sd) / (l.sd + g.sd)
  })
}

function kindsOf(base: Prediction, cuts: readonly number[]): AnswerForecast['kind'][] {
  switch (base.kind) {
    case 'yes':
    case 'waters':
      return ['yes', 'no']
    case 'lamps':
      return ['lamp_good', 'lamp_open', 'lamp_short']
    case 'tone':
      return ['no', 'yes']
    case 'volts':
      return [...cuts, 0].map(() => 'figure')
    default:
      return [...[...cuts, 0].map(() => 'figure' as const), 'open']
  }
}

function chances(s: Prediction, cuts: readonly number[], kinds: readonly AnswerForecast['kind'][]): number[] {
  switch (s.kind) {
    case 'either': {
      const [w, i] = [chances(s.well, cuts, kinds), chances(s.ill, cuts, kinds)]
      return w.map((p, k) => p * (1 - s.p) + i[k]! * s.p)
    }
    case 'yes':
      return [s.p, 1 - s.p]
    case 'waters': {
      const p = s.master * (1 - s.valves.reduce((none, [, q]) => none * (1 - q), 1))
      return [p, 1 - p]
    }
    case 'lamps':
      return [s.good, s.open, s.short]
    case 'tone':
      return s.lost_m === null ? [0.97, 0.03] : [0.03, 0.97]
    case 'open':
    case 'insulated':
      return kinds.map((k) => (k === 'open' ? 0.999 : 0.001 / Math.max(1, kinds.length - 1)))
    default: {
      const { mean, sd } = middle(s)!
      let below = 0
      const figures = [...cuts, Infinity].map((c) => {
        const to = c === Infinity ? 1 : normalBelow((c - mean) / sd)
        const p = Math.max(0, to - below)
        below = to
        return p
      })
      return s.kind === 'volts' ? figures : [...figures.map((p) => p * 0.999), 0.001]
    }
  }
}

const entropyTerm = (p: number) => (p > 0 ? -p * Math.log2(p) : 0)

const entropyOf = (weights: Float64Array): number => {
  let h = 0
  for (const p of weights) h += entropyTerm(p)
  return h
}

/** Bits that one test's answer tells about the target: H(answer) − H(answer | target). */
function bitsAlone(
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
function bitsOf(
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
function multiplied(cells: Float64Array, count: number, n: number, { rows, rowOf, answers }: Answered): Float64Array {
  const made = new Float64Array(count * answers * n)
  for (let c = 0; c < count; c++)
    for (let b = 0; b < answers; b++)
      for (let i = 0; i < n; i++) made[(c * answers + b) * n + i] = cells[c * n + i]! * rows[rowOf[i]! * answers + b]!
  return made
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
