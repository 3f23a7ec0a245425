import type { ReadingValue } from '../record'
import type { FaultHypothesis } from './catalogue'
import type { TakenTest } from './taken'

/** A reading as a hunt takes it: what was tried and what it gave, ohms after the meter's own leads are taken off. */
export interface Observation {
  readonly test: TakenTest
  readonly value: ReadingValue
  /** How often the test has given it, one after the other; once where not said. */
  readonly times?: number
}

/** Some faults together, or none, with their part of the belief. */
export interface Explanation {
  readonly faults: readonly FaultHypothesis[]
  readonly p: number
}

export interface Beliefs {
  /** How likely it is that a part is at fault, by the part's key; parts without any belief are left out. */
  readonly parts: ReadonlyMap<string, number>
  /** How likely it is that nothing is at fault and no reading slipped. */
  readonly nothing: number
  /** How likely it is that nothing is at fault, and that a reading slipped. */
  readonly misread: number
  /**
   * By what they explain, the likeliest first: readings that have nothing to do with each other are explained apart.
   */
  readonly islands: readonly (readonly Explanation[])[]
  /** Faults that no reading shows, one at a time: what the next tests may bring to light. */
  readonly unread: readonly Explanation[]
  /**
   * Log-likelihood of the worst reading under the likeliest explanation, or another that is likely too, below the best
   * that it could be: below `STRAINED` the record itself is in doubt.
   */
  readonly strain: number
  /** The reading that it is worst for; null where every reading fits as well as it could. */
  readonly worst: Observation | null
}
