import * as z from 'zod'
import { deviceId, words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/**
 * What bears on the count of a sequencer: turns that it was given, turns that nobody counted (an outage, somebody else
 * at the controller), and what watered at its last turn. The last kind takes an entry back.
 */
export const sequencerTold = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('turned'), times: z.int().min(1).max(99) }),
  /** From none to so many, each as likely. */
  z.strictObject({ kind: z.literal('perhaps'), most: z.int().min(1).max(15) }),
  /** Null: no valve watered, as at an output that is capped. */
  z.strictObject({ kind: z.literal('watered'), valve: deviceId.nullable() }),
  z.strictObject({ kind: z.literal('back'), entry: factId }),
])
export type SequencerTold = z.infer<typeof sequencerTold>

export const sequencerTurn = z.strictObject({
  at: instant,
  author: words(80),
  sequencer: deviceId,
  told: sequencerTold,
})
export type SequencerTurn = z.infer<typeof sequencerTurn>

export const sequencerTurnKind = factKind({
  kind: 'sequencerTurn',
  collection: 'sequencerTurns',
  schema: sequencerTurn,
})
