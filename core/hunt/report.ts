import { testKey, type FieldTest, type Part, type ReadingValue } from '../record'
import type { PlaceId } from '../site'
import { STRAINED, type Hunt, type LikelyFault } from './hunt'
import type { Cause } from './odds'
import { causesOf } from './evidence'
import type { Needs } from './tests'
import type { Advice, AnswerForecast } from './next'
import { roundOf, type Errand, type RoundOrder } from './round'
import type { TakenTest } from './taken'
import type { Trouble } from './troubles'
import { placesOf } from './where'

export interface PartReport {
  readonly key: string
  readonly where: Part
  readonly places: readonly PlaceId[]
  readonly p: number
  readonly causes: readonly { readonly cause: Cause; readonly p: number }[]
  /** What most likely ails it; null where no reading shows it, or it is unlikely. */
  readonly likeliest: LikelyFault | null
}
/** What an answer would mean: each of these parts, null for "nothing wrong". */
export interface OutcomeReport {
  readonly kind: AnswerForecast['kind']
  readonly low: number | null
  readonly high: number | null
  readonly p: number
  readonly parts: readonly { readonly where: Part | null; readonly p: number }[]
}
export interface NextReport {
  readonly test: FieldTest
  readonly place: PlaceId
  readonly needs: Needs
  readonly minutes: number
  readonly bits: number
  readonly outcomes: readonly OutcomeReport[]
}

/** One thing that is wrong: the parts that may be it, the likeliest first, and that any of them is. */
export interface TroubleReport {
  readonly p: number
  readonly parts: readonly PartReport[]
  /** It is rather there than not: said to be wrong, and gone after on a round. */
  readonly wrong: boolean
  /** Its likeliest part is known well enough to be mended. */
  readonly named: boolean
  /** How many zones its likeliest part has to do with. */
  readonly zones: number
  /** The test that tells most about it; null where it is named, or none tells anything. */
  readonly next: NextReport | null
}

/** A place on the round, and what is to be done there for which trouble: make its next test, or mend its part. */
export interface RoundStop {
  readonly place: PlaceId
  readonly minutes: number
  readonly errands: readonly { readonly trouble: number; readonly test: FieldTest | null }[]
}

/** How a hunt stands, in plain values: what goes out of a worker or a shell. */
export interface HuntReport {
  readonly end: 'named' | 'nothing' | 'undecided' | 'open'
  readonly named: PartReport | null
  readonly nothing: number
  /** Nothing is wrong, and a reading slipped. */
  readonly misread: number
  /** No explanation fits every reading: the record may be wrong, or a reading slipped. */
  readonly strained: boolean
  /** Parts above a thousandth, the likeliest first. */
  readonly parts: readonly PartReport[]
  /** The same thing by thing, as far as readings show them, the likeliest first. */
  readonly troubles: readonly TroubleReport[]
  /** What is next for all that is rather wrong than not, in one walk; empty for a single thing. */
  readonly round: Readonly<Record<RoundOrder, readonly RoundStop[]>>
  readonly telling: { readonly test: TakenTest; readonly value: ReadingValue } | null
  /** A reading that no likely explanation fits: it may have slipped, and is to be taken again before anything else. */
  readonly suspect: NextReport | null
  /** The tests whose readings count, by their keys: after a repair not those that it could have touched. */
  readonly counted: readonly string[]
  readonly next: NextReport | null
  readonly minutes: number
}

/** Parts below this are not told of. */
const MIN_REPORTED = 1e-3
/** What is likelier than this is rather there than not. */
const RATHER = 0.5
/** What ails a part that is less likely than this is not worked out. */
const RATHER_LIKELY = 0.05

export function reportOf(hunt: Hunt): HuntReport {
  const beliefs = hunt.beliefs()
  const stand = hunt.stand()
  const known = new Map<string, LikelyFault | null>()
  const likeliestOf = (key: string) => {
    if (!known.has(key)) known.set(key, hunt.likeliest(key))
    return known.get(key)!
  }
  const part = (key: string, p: number): PartReport => ({
    key,
    where: hunt.part(key),
    places: placesOf(hunt.context.site, hunt.part(key)),
    p,
    causes: causesOf(beliefs, hunt.catalogue, key),
    likeliest: p > RATHER_LIKELY ? likeliestOf(key) : null,
  })
  const parts = [...beliefs.parts]
    .filter(([, p]) => p > MIN_REPORTED)
    .sort((a, b) => b[1] - a[1])
    .map(([key, p]) => part(key, p))
  const telling = hunt.telling()
  const found = hunt.troubles().map((trouble) => {
    const named = hunt.isNamed(trouble)
    return { trouble, named, zones: hunt.zonesOf(trouble), advice: named ? null : hunt.adviceOn(trouble) }
  })
  const again = beliefs.strain < STRAINED && beliefs.worst ? hunt.againOn(beliefs.worst) : null
  const next = stand.kind === 'open' ? stand.next : stand.kind === 'named' ? bestOf(found) : null
  return {
    end: stand.kind,
    named: stand.kind === 'named' ? part(stand.key, stand.p) : null,
    nothing: beliefs.nothing,
    misread: beliefs.misread,
    strained: beliefs.strain < STRAINED,
    parts,
    troubles: found.map(({ trouble, named, zones, advice }) => ({
      p: trouble.p,
      parts: trouble.parts.map(([key, p]) => part(key, p)),
      wrong: trouble.p >= RATHER,
      named,
      zones,
      next: advice && nextOf(hunt, advice),
    })),
    round: roundsOf(hunt, found),
    telling: telling && telling.reading,
    suspect: again && nextOf(hunt, again),
    counted: hunt.counted().map(testKey),
    next: next && nextOf(hunt, next),
    minutes: hunt.minutes(),
  }
}

interface Found {
  readonly trouble: Trouble
  readonly named: boolean
  readonly zones: number
  readonly advice: Advice | null
}

/** Beside a part that is named: the test for what else is rather wrong that tells most per minute. */
function bestOf(found: readonly Found[]): Advice | null {
  return found.reduce<Advice | null>(
    (best, { trouble, advice }) =>
      trouble.p < RATHER || !advice || (best && best.bitsPerMinute >= advice.bitsPerMinute) ? best : advice,
    null,
  )
}

function nextOf(hunt: Hunt, { candidate, minutes, bits, outcomes }: Advice): NextReport {
  return {
    test: candidate.test,
    place: candidate.place,
    needs: candidate.needs,
    minutes,
    bits,
    outcomes: outcomes.map((o) => ({
      kind: o.kind,
      low: o.low,
      high: o.high,
      p: o.p,
      parts: o.parts.map((x) => ({ where: x.key === null ? null : hunt.part(x.key), p: x.p })),
    })),
  }
}

/** The round in either order: of each thing that is rather wrong its next test, or its likeliest part to be mended. */
function roundsOf(hunt: Hunt, found: readonly Found[]): HuntReport['round'] {
  const errands = found.flatMap(({ trouble, zones, advice }, n): Errand[] => {
    if (trouble.p < RATHER) return []
    const place = advice?.candidate.place ?? placesOf(hunt.context.site, hunt.part(trouble.parts[0]![0]))[0]!
    return [{ trouble: n, place, test: advice?.candidate ?? null, worth: zones * trouble.p }]
  })
  const walked = (order: RoundOrder): RoundStop[] =>
    errands.length < 2
      ? []
      : roundOf(hunt.pace, hunt.crew(), errands, order).map((stop) => ({
          place: stop.place,
          minutes: stop.minutes,
          errands: stop.errands.map((e) => ({ trouble: e.trouble, test: e.test?.test ?? null })),
        }))
  return { nearest: walked('nearest'), worst: walked('worst') }
}

/** A step of a hunt as it was recorded: a reading, or a part that was mended. */
export type HuntStep = { readonly test: TakenTest; readonly value: ReadingValue } | { readonly mended: Part }

/**
 * Goes on with a hunt by the steps it has not taken yet; null where they are no continuation, and the hunt must begin
 * anew.
 */
export function goOn(hunt: Hunt, taken: readonly HuntStep[], steps: readonly HuntStep[]): Hunt | null {
  const same = (a: HuntStep, b: HuntStep) => JSON.stringify(a) === JSON.stringify(b)
  if (taken.length > steps.length || taken.some((t, i) => !same(t, steps[i]!))) return null
  for (const s of steps.slice(taken.length)) {
    if ('mended' in s) hunt.mended(s.mended)
    else if (hunt.predictor.base(s.test) !== null) hunt.take(s)
  }
  return hunt
}
