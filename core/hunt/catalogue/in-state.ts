import type { Cause } from '../odds'
import type { Entry } from './cells'

/** Where something is said to fail in some states only, so many of these faults come and go with the state. */
const WITH_STATE = 0.5
/** What water, heat or a pull brings about and takes away again. */
const COMES_AND_GOES: ReadonlySet<Cause> = new Set<Cause>([
  'open',
  'series',
  'leak',
  'touch',
  'coil_open',
  'coil_short',
  'coil_part',
])

/**
 * Each fault that may come with a state twice: as one that is always there, and as one that shows in some states only.
 */
export const withState = (entries: readonly Entry[]): Entry[] =>
  entries.flatMap((e) =>
    COMES_AND_GOES.has(e.cause)
      ? [
          { ...e, weight: e.weight * (1 - WITH_STATE) },
          { ...e, weight: e.weight * WITH_STATE, withState: true as const },
        ]
      : [e],
  )
