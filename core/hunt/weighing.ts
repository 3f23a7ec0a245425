import type { Beliefs, Observation } from './beliefs'
import type { Faults } from './variants'

/** Readings as they are taken, and what is believed after them. */
export interface Weighing {
  /** Adds a reading; one whose test says nothing here is left out. */
  readonly add: (reading: Observation) => boolean
  readonly beliefs: () => Beliefs
  /** Nats by which each reading speaks for some faults against others. */
  readonly eachFor: (some: Faults, others: Faults) => { readonly reading: Observation; readonly nats: number }[]
}
