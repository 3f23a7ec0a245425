import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** How something that was seen stands. `struck` says that it was none; it is kept, and listed no more. */
export const SIGHTING_STATES = ['open', 'quoted', 'accepted', 'declined', 'done', 'struck'] as const
export type SightingState = (typeof SIGHTING_STATES)[number]

/**
 * A change of how something stands; the latest counts. What was seen in a step of a procedure goes by that step’s id.
 */
export const sightingTurn = z.strictObject({
  at: instant,
  author: words(80),
  sighting: factId,
  to: z.enum(SIGHTING_STATES),
  why: words(200).default(''),
})
export type SightingTurn = z.infer<typeof sightingTurn>

export const sightingTurnKind = factKind({ kind: 'sightingTurn', collection: 'sightingTurns', schema: sightingTurn })
