import { SORTING_METHODS } from '../record'
import { groupPlan } from './group-plan'
import { bestTags, STOCK_ohm, USUAL_TAGS } from './tags'

export type Method = (typeof SORTING_METHODS)[number]

/** How long the single moves of a hand take, minutes: our own figures, for somebody who has done it before. */
const MOVE_min = {
  /** The helper is called, moves the clip and says so; the core is found and flagged. */
  call: 0.75,
  /** A resistor is hung on, and taken off again. */
  tag: 0.75,
  /** A core is read and flagged. */
  read: 0.3,
  /** A core is twisted into its group, and out of it again. */
  join: 0.5,
  /** One core is held against another and the meter listened to. */
  touch: 0.12,
} as const

export interface CoresToFind {
  readonly cores: number
  /** From one end to the other on foot, minutes. */
  readonly walk_min: number
  readonly people: number
}

/** One way of finding which core is which, with its minutes; null where it cannot be done with these hands. */
export interface MethodTime {
  readonly method: Method
  readonly minutes: number | null
  /** Times that one walks from end to end. */
  readonly walks: number
}

/** Tags that are told apart, of the usual stock. */
const TAGS = bestTags(STOCK_ohm, USUAL_TAGS).length

/** How long each way takes for so many cores, the quickest first; what cannot be done is last. */
export function methodTimes({ cores, walk_min, people }: CoresToFind): MethodTime[] {
  const rounds = Math.ceil(cores / TAGS)
  const plan = groupPlan(cores).cores
  const groups = (end: 'first' | 'second') => new Set(plan.map((c) => c[end])).size
  // Each core is held against one of every group that is known so far: half of them in the middle.
  const touches = plan.length * ((groups('first') + groups('second')) / 2)
  const times: MethodTime[] = [
    { method: 'helper', minutes: people < 2 ? null : 2 * walk_min + cores * MOVE_min.call, walks: 2 },
    { method: 'tags', minutes: 2 * rounds * walk_min + cores * (MOVE_min.tag + MOVE_min.read), walks: 2 * rounds },
    {
      method: 'groups',
      minutes: 2 * walk_min + 2 * plan.length * MOVE_min.join + touches * MOVE_min.touch + cores * MOVE_min.read,
      walks: 2,
    },
  ]
  return times.sort((a, b) => (a.minutes ?? Infinity) - (b.minutes ?? Infinity))
}
