import { testKey, type FieldTest, type Meter, type Part, type ReadingValue, type WiringState } from '../record'
import { getOrThrow, terminalEnd, type ControllerId, type DeviceId, type PlaceId, type Site } from '../site'
import { climateOf, unloaded_V, type Climate } from '../circuit'
import { corrected_ohm } from '../expect'
import type { Beliefs, Explanation, Observation } from './beliefs'
import { Posterior } from './inference'
import { predictorOf, TRUNCATED } from './predict'
import { huntContextOf, type HuntContext } from './context'
import { materialOnly } from './material'
import { adviceOf, consider, mostTelling, offers, prospectsOf, type Advice, type Considered, type Pace } from './next'
import { USUAL_ODDS, type Cause, type Circumstances, type OddsBasis } from './odds'
import type { Predictor } from './memoize'
import { strongestEvidence } from './evidence'
import { beforeDigging, NAMED } from './naming'
import { severity_ohm } from './severity'
import { takenKey, type TakenTest } from './taken'
import { touchedBy } from './touched'
import {
  crewAt,
  candidatesOf,
  minutesOf,
  USUAL_COSTS,
  walkingOf,
  type Candidate,
  type Costs,
  type Crew,
  type Walking,
} from './tests'
import { troublesIn, type Trouble } from './troubles'
import {
  catalogueOf,
  leakSizesFor,
  UNSEEN_LEAKS,
  type Catalogue,
  type FaultHypothesis,
  type LeakSizes,
} from './catalogue'
import { coilPriorFrom, type CoilPrior } from './weigh'
import { holdsPart } from './where'

/**
 * The worst reading of the best explanation lies so far off, in nats, that the record itself is in doubt: once in
 * some 4000 readings by chance.
 */
export const STRAINED = -8.3

/**
 * How a hunt stands: a part is named, nothing is wrong in the wiring, or something is still to be measured; undecided
 * when no test tells any more.
 */
export type Stand =
  | { readonly kind: 'named'; readonly key: string; readonly p: number }
  | { readonly kind: 'nothing'; readonly p: number }
  | { readonly kind: 'open'; readonly next: Advice }
  | { readonly kind: 'undecided' }

/** An earlier good reading of a terminal to common, at the temperature of now. */
export interface Known {
  readonly test: FieldTest
  readonly ohm: number
}

export interface HuntOptions {
  readonly climate?: Climate
  readonly meter: Meter
  readonly odds?: OddsBasis
  readonly circumstances?: Circumstances
  readonly costs?: Costs
  readonly today?: string | null
  readonly known?: readonly Known[]
  /** States in which alone something is said to fail; what is taken in another, or in none, says so (`asTaken`). */
  readonly failing?: readonly WiringState[]
  /** Faults of this hunt that were put on record as they are, not mended. */
  readonly left?: number
  readonly helper?: boolean
  readonly tools?: { readonly tester: boolean; readonly tracer: boolean; readonly meter: boolean }
  /** Where the crew stands at first; at the cabinet where not said. */
  readonly from?: PlaceId
}

/** A fault as it most likely is: where it sits in its joint, how far along its run, and its ohms. */
export interface LikelyFault {
  readonly cause: Cause
  readonly at: string | null
  readonly along: number | null
  readonly ohm: number | null
  /** The states in which alone it is there; empty where it always is. */
  readonly states: readonly WiringState[]
}

/** A hunt for faults on one controller: what is believed after the readings so far, and what to measure next. */
export interface Hunt {
  readonly context: HuntContext
  /** Both change where a reading shows a leak: its sizes are divided more finely then. */
  readonly catalogue: Catalogue
  readonly predictor: Predictor
  readonly candidates: readonly Candidate[]
  readonly walking: Walking
  readonly take: (reading: Observation) => void
  readonly beliefs: () => Beliefs
  /** What would be believed with one more reading; the hunt itself stays where it is. */
  readonly beliefsWith: (reading: Observation) => Beliefs
  /** The reading that speaks most for the likeliest part. */
  readonly telling: () => ReturnType<typeof strongestEvidence>
  readonly stand: () => Stand
  /** What is wrong, thing by thing, as far as readings show it, the likeliest first. */
  readonly troubles: () => readonly Trouble[]
  /** The test that tells most about one of them per minute; null where none tells anything. */
  readonly adviceOn: (trouble: Trouble) => Advice | null
  /** Whether its likeliest part is known well enough to be mended. */
  readonly isNamed: (trouble: Trouble) => boolean
  /** A reading to be taken again before it is believed; null of one that was, or that no test of the hunt gives. */
  readonly againOn: (reading: Observation) => Advice | null
  /** What most likely ails a part, by its key; null where no reading shows it. */
  readonly likeliest: (key: string) => LikelyFault | null
  /** How many zones the likeliest part of a trouble has to do with. */
  readonly zonesOf: (trouble: Trouble) => number
  readonly pace: Pace
  /** Tests whose readings count: those that were mended since, and what they had shown in, do not. */
  readonly counted: () => readonly TakenTest[]
  readonly crew: () => Crew
  readonly minutes: () => number
  /** A part was mended: readings that its fault had touched no longer count, and one fault fewer is left to find. */
  readonly mended: (part: Part) => void
  /** The part under a key of its catalogue. */
  readonly part: (key: string) => Part
}

/** Null for a controller without a common terminal. */
export function huntOf(site: Site, controller: ControllerId, options: HuntOptions): Hunt | null {
  const climate = options.climate ?? climateOf(site)
  const context = huntContextOf(site, controller, climate)
  if (!context) return null
  const { meter, circumstances, today, odds = USUAL_ODDS, costs = USUAL_COSTS, failing = [], left = 0 } = options
  const worldOf = (leaks: LeakSizes) => {
    const every = catalogueOf(context, { odds, circumstances, today, leaks, inStates: failing.length > 0 })
    const predictor = predictorOf(context, every, meter)
    const coils = priorsFrom(context, predictor, options.known ?? [])
    return { leaks, predictor, coils, catalogue: materialOnly(context, every, predictor, coils) }
  }
  /** Faults, and what they show; their sizes are divided more finely where readings show a leak. */
  let world = worldOf(UNSEEN_LEAKS)
  const candidates = candidatesOf(context, options.tools)
  const walking = walkingOf(context)
  const parts = Object.fromEntries(world.catalogue.faults.map((f) => [f.key, f.where]))

  let readings: Observation[] = []
  const mendedKeys = new Set<string>()
  /** Faults that are known by now: mended, or on record as they are. */
  let found = left
  let crew = crewAt(options.from ?? getOrThrow(site.controllers, controller).place, options.helper)
  let minutes = 0
  let posterior: Posterior | null = null
  let held: Beliefs | null = null
  let considered: (Considered | null)[] | null = null
  /** By the key of a trouble's likeliest part: the test to be made before it is named. */
  const testsBefore = new Map<string, Advice | null>()
  /** What was worked out from the readings so far holds no more. */
  const forget = () => {
    held = considered = null
    testsBefore.clear()
  }
  const pace: Pace = { context, costs, walking }
  /** Faults, and what they show, as finely as some readings ask for. */
  const worldFor = (list: readonly Observation[]) => {
    const leaks = leakSizesFor(list, meter, world.leaks)
    return leaks === world.leaks ? world : worldOf(leaks)
  }
  const posteriorOf = (list: readonly Observation[], { catalogue, predictor, coils } = worldFor(list)): Posterior => {
    // What was mended is not at fault again.
    const left: Catalogue = {
      ...catalogue,
      faults: catalogue.faults.map((f) => (mendedKeys.has(f.key) ? { ...f, prior: 0 } : f)),
    }
    const count = countAfter(odds.count, found)
    const made = new Posterior(context, left, predictor, coils, unloaded_V(site, controller), count)
    for (const r of list) made.add(r)
    return made
  }
  /** Built when it is asked for: of many readings in a row it is weighed once. */
  const weighed = (): Posterior => (posterior ??= posteriorOf(readings, (world = worldFor(readings))))
  /** The readings with one more: of the same test the last one counts. */
  const withMore = (reading: Observation): { readonly list: Observation[]; readonly again: boolean } => {
    const corrected: Observation =
      reading.value.kind === 'ohm'
        ? { ...reading, value: { kind: 'ohm', ohm: corrected_ohm(reading.value.ohm, meter) } }
        : reading
    const key = takenKey(reading.test)
    const before = readings.find((r) => takenKey(r.test) === key)
    const times = before && sameAgain(before.value, corrected.value) ? (before.times ?? 1) + 1 : 1
    const others = readings.filter((r) => takenKey(r.test) !== key)
    return { list: [...others, { ...corrected, times }], again: before !== undefined }
  }
  const take = (reading: Observation): void => {
    const { list, again } = withMore(reading)
    readings = list
    if (again || leakSizesFor(readings, meter, world.leaks) !== world.leaks) posterior = null
    else posterior?.add(readings.at(-1)!)
    forget()
    const candidate = candidates.find((c) => testKey(c.test) === testKey(reading.test))
    if (candidate) {
      const step = minutesOf(context, costs, walking, crew, candidate)
      minutes += step.minutes
      crew = step.then
    }
  }
  const beliefs = () => (held ??= weighed().beliefs())
  const prospects = (told: readonly Explanation[], among: ReadonlySet<string> | null = null) =>
    prospectsOf(
      world.catalogue,
      world.predictor,
      told,
      candidates,
      new Set(readings.map((r) => takenKey(r.test))),
      among,
    )
  /** The best test for each of what is to be told apart, worked out once until something is read. */
  const consideredOf = () => (considered ??= offers(beliefs()).map(({ told }) => consider(pace, crew, prospects(told))))
  const adviceOn = ({ island, alone, parts }: Trouble): Advice | null => {
    const best = alone
      ? consideredOf()[island]
      : consider(pace, crew, prospects(beliefs().islands[island]!, new Set(parts.map(([key]) => key))))
    return best ? adviceOf(pace, crew, best) : null
  }
  /** The test to make before what a trouble's likeliest part is dug up for; worked out once until something is read. */
  const testBefore = (trouble: Trouble): Advice | null => {
    const [key, p] = trouble.parts[0]!
    let test = testsBefore.get(key)
    if (test === undefined)
      testsBefore.set(key, (test = beforeDigging(getOrThrow(parts, key), p, () => adviceOn(trouble))))
    return test
  }
  const isNamed = (trouble: Trouble): boolean => trouble.parts[0]![1] >= NAMED && testBefore(trouble) === null
  /** A reading to be taken again, once; null of one that is not made at the cabinet or in a box. */
  const againOn = ({ test, times = 1 }: Observation): Advice | null => {
    const candidate = times > 1 ? undefined : candidates.find((c) => testKey(c.test) === takenKey(test))
    if (!candidate) return null
    const { minutes } = minutesOf(context, costs, walking, crew, candidate)
    return { candidate, minutes, bits: 0, bitsPerMinute: 0, outcomes: [] }
  }
  const likeliest = (key: string): LikelyFault | null => {
    const { catalogue, predictor, coils } = world
    const isAt = (v: FaultHypothesis) => catalogue.faults[v.fault]!.key === key
    /** By cell there: what the explanations hold that name it, and the first of them. */
    const named = new Map<FaultHypothesis, { readonly first: Explanation; readonly p: number }>()
    for (const e of beliefs().islands.flat())
      for (const v of e.faults) {
        const { first = e, p = 0 } = named.get(v) ?? {}
        if (isAt(v)) named.set(v, { first, p: p + e.p })
      }
    const [best] = [...named].sort(([, a], [, b]) => b.p - a.p)
    if (!best) return null
    const [v, { first }] = best
    const { cause, at, withState } = catalogue.faults[v.fault]!
    const ohm = severity_ohm(predictor, coils, readings, first.faults, v)
    return { cause, at, along: v.along, ohm, states: withState ? failing : [] }
  }
  const zonesOf = ({ parts }: Trouble): number => {
    const { catalogue, predictor } = world
    const faults = catalogue.faults.filter((f) => f.key === parts[0]![0])
    return context.terminals.filter((t) => {
      const test = { kind: 'water', at: terminalEnd(controller, t) } as FieldTest
      return faults.some((f) => predictor.mayAffect(test, f))
    }).length
  }
  return {
    context,
    get catalogue() {
      return world.catalogue
    },
    get predictor() {
      return world.predictor
    },
    candidates,
    walking,
    take,
    beliefs,
    beliefsWith: (reading) => posteriorOf(withMore(reading).list).beliefs(),
    part: (key) => getOrThrow(parts, key),
    crew: () => crew,
    minutes: () => minutes,
    telling: () => strongestEvidence(weighed(), beliefs(), world.catalogue),
    troubles: () => troublesIn(beliefs(), world.catalogue),
    adviceOn,
    isNamed,
    againOn,
    likeliest,
    zonesOf,
    pace,
    counted: () => readings.map((r) => r.test),
    stand: () => {
      const b = beliefs()
      const [key, p] = [...b.parts].reduce((m, e) => (e[1] > m[1] ? e : m), ['', 0] as readonly [string, number])
      if (p >= NAMED) {
        const trouble = troublesIn(b, world.catalogue).find((x) => x.parts[0]![0] === key)
        const next = trouble ? testBefore(trouble) : null
        return next ? { kind: 'open', next } : { kind: 'named', key, p }
      }
      if (b.nothing >= NAMED) return { kind: 'nothing', p: b.nothing }
      const slipped = b.worst && b.nothing + b.misread >= NAMED ? againOn(b.worst) : null
      if (slipped) return { kind: 'open', next: slipped }
      const each = consideredOf()
      const best = mostTelling(offers(b).flatMap(({ worth }, i) => (each[i] ? [{ considered: each[i], worth }] : [])))
      return best ? { kind: 'open', next: adviceOf(pace, crew, best.considered) } : { kind: 'undecided' }
    },
    mended: (part) => {
      const told = beliefs().islands.flat()
      const faults = world.catalogue.faults.filter((f) => holdsPart(site, part, f.where))
      const isTouched = touchedBy(world, faults, told)
      for (const f of faults) mendedKeys.add(f.key)
      found++
      readings = readings.filter((r) => !isTouched(r.test))
      crew = { ...crew, undone: new Set() }
      posterior = null
      forget()
    },
  }
}

/** Two readings of one test that show the same, within what a meter held to it again may differ by. */
function sameAgain(one: ReadingValue, other: ReadingValue): boolean {
  if (one.kind !== 'ohm' || other.kind !== 'ohm') return JSON.stringify(one) === JSON.stringify(other)
  return Math.abs(one.ohm - other.ohm) <= AGAIN_ohm + AGAIN_ratio * one.ohm
}
const [AGAIN_ohm, AGAIN_ratio] = [0.5, 0.02]

/**
 * Odds of how many faults are left once some are found: any of those that are there may be the ones that were found
 * first, so that k + r faults count in as many ways as r of them can be chosen. Past what is listed one more is rare.
 */
function countAfter(count: readonly number[], found: number): readonly number[] {
  const left = count.slice(found).map((w, k) => {
    let ways = 1
    for (let i = 1; i <= found; i++) ways *= (k + i) / i
    return w * ways
  })
  return left.some((w) => w > 0) ? left : [1, 0.02]
}

function priorsFrom(
  context: HuntContext,
  predictor: Predictor,
  known: readonly Known[],
): (device: DeviceId) => CoilPrior {
  const tolerance = context.site.settings.coilTolerance_ratio
  const usual: CoilPrior = { mean: 0, sd: (tolerance / 2) * TRUNCATED }
  const made = new Map<DeviceId, CoilPrior>()
  for (const { test, ohm } of known) {
    const seen = predictor.base(test)
    if (seen?.kind !== 'ohms') continue
    for (const [device] of seen.coils) made.set(device, coilPriorFrom(seen, device, ohm, tolerance))
  }
  return (device) => made.get(device) ?? usual
}
