import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { coreEnd, endGroups, endOf, MOST_CORES, touchingEnds } from '../core-ends'
import { factKind } from './kind'

/** Ways of finding which core is which. */
export const SORTING_METHODS = ['helper', 'tags', 'groups'] as const
const walk = z.int().min(0).max(19)
/** Of a tag, or of the loop that it closes. */
const ohm = z.number().min(0).max(1e9)

/**
 * What was done or seen at one end of a cable whose cores are told apart. Of what is said twice (of one end, one walk,
 * one core) the latest counts.
 */
export const coreTried = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('method'), method: z.enum(SORTING_METHODS) }),
  /** What each end looks like, in the order in which they lie; empty where it looks like nothing. */
  z.strictObject({ kind: z.literal('looks'), end: endOf, looks: z.array(words(40)).max(MOST_CORES) }),
  /** Everything is off this end: cores hang free, and were seen to. */
  z.strictObject({ kind: z.literal('off'), end: endOf }),
  z.strictObject({ kind: z.literal('bare'), end: endOf, touching: touchingEnds }),
  z.strictObject({ kind: z.literal('joined'), walk, groups: endGroups }),
  z.strictObject({ kind: z.literal('seen'), walk, groups: endGroups }),
  /** The tone, or the meter’s lead, is wanted on a core of the first end; then it is there. */
  z.strictObject({ kind: z.literal('called'), core: coreEnd }),
  z.strictObject({ kind: z.literal('got'), core: coreEnd }),
  /** Which end of the second side a core of the first one came out at; null where it came out at none. */
  z.strictObject({ kind: z.literal('heard'), core: coreEnd, at: coreEnd.nullable() }),
  /** Which tag hangs on a core of the first end, and what was read at one of the second; null where it read open. */
  z.strictObject({ kind: z.literal('hung'), core: coreEnd, ohm }),
  z.strictObject({ kind: z.literal('read'), at: coreEnd, ohm: ohm.nullable() }),
  /** Takes one of the above back. */
  z.strictObject({ kind: z.literal('back'), trial: factId }),
])
export type CoreTried = z.infer<typeof coreTried>

export const coreTrial = z.strictObject({ job: factId, at: instant, author: words(80), tried: coreTried })
export type CoreTrial = z.infer<typeof coreTrial>

export const coreTrialKind = factKind({
  kind: 'coreTrial',
  collection: 'coreTrials',
  schema: coreTrial,
  owner: { kind: 'job', field: 'job' },
})
