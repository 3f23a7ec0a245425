import type { Candidate } from '../tests'

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
