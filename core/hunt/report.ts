import type { FieldTest, Part, ReadingValue } from '../record'
import type { PlaceId } from '../site'
import { STRAINED, type Hunt } from './hunt'
import type { Cause } from './odds'
import { causesOf } from './evidence'
import type { Needs } from './tests'
import type { AnswerForecast } from './next'
import { troublesIn } from './troubles'
import { placesOf } from './where'

export interface PartReport {
  readonly key: string
  readonly where: Part
  readonly places: readonly PlaceId[]
  readonly p: number
  readonly causes: readonly { readonly cause: Cause; readonly p: number }[]
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
}

/** How a hunt stands, in plain values: what goes out of a worker or a shell. */
export interface HuntReport {
  readonly end: 'named' | 'nothing' | 'undecided' | 'open'
  readonly named: PartReport | null
  readonly nothing: number
  /** No explanation fits every reading: the record may be wrong, or a reading slipped. */
  readonly strained: boolean
  /** Parts above a thousandth, the likeliest first. */
  readonly parts: readonly PartReport[]
  /** The same thing by thing, as far as readings show them, the likeliest first. */
  readonly troubles: readonly TroubleReport[]
  readonly telling: { readonly test: FieldTest; readonly value: ReadingValue } | null
  readonly next: NextReport | null
  readonly minutes: number
}

/** Parts below this are not told of. */
const MIN_REPORTED = 1e-3

export function reportOf(hunt: Hunt): HuntReport {
  const beliefs = hunt.beliefs()
  const stand = hunt.stand()
  const part = (key: string, p: number): PartReport => ({
    key,
    where: hunt.part(key),
    places: placesOf(hunt.context.site, hunt.part(key)),
    p,
    causes: causesOf(beliefs, hunt.catalogue, key),
  })
  const parts = [...beliefs.parts]
    .filter(([, p]) => p > MIN_REPORTED)
    .sort((a, b) => b[1] - a[1])
    .map(([key, p]) => part(key, p))
  const telling = hunt.telling()
  const next = stand.kind === 'open' ? stand.next : null
  return {
    end: stand.kind,
    named: stand.kind === 'named' ? part(stand.key, stand.p) : null,
    nothing: beliefs.nothing,
    strained: beliefs.strain < STRAINED,
    parts,
    troubles: troublesIn(beliefs, hunt.catalogue).map((t) => ({
      p: t.p,
      parts: t.parts.map(([key, p]) => part(key, p)),
    })),
    telling: telling && telling.reading,
    next: next && {
      test: next.candidate.test,
      place: next.candidate.place,
      needs: next.candidate.needs,
      minutes: next.minutes,
      bits: next.bits,
      outcomes: next.outcomes.map((o) => ({
        kind: o.kind,
        low: o.low,
        high: o.high,
        p: o.p,
        parts: o.parts.map((x) => ({ where: x.key === null ? null : hunt.part(x.key), p: x.p })),
      })),
    },
    minutes: hunt.minutes(),
  }
}

/** A step of a hunt as it was recorded: a reading, or a part that was mended. */
export type HuntStep = { readonly test: FieldTest; readonly value: ReadingValue } | { readonly mended: Part }

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
