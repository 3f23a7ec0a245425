import * as z from 'zod'

/** More cores than any jacket has. */
export const MOST_CORES = 400

/**
 * The end of a core, numbered from 0 as they lie at that side of the cable; a known conductor that goes along is last.
 */
export const coreEnd = z.int().min(0).max(MOST_CORES)
/** Every end of a side in its group. */
export const endGroups = z.array(z.array(coreEnd).min(1)).min(1)
export const endOf = z.enum(['first', 'second'])
/** Two ends of one side that show continuity though nothing is joined. */
export const touchingEnds = z.tuple([coreEnd, coreEnd]).nullable()
