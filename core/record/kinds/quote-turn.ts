import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** A signature as it was drawn: strokes of points, x and y by turns, in a box of 1000 by 400. */
export const signature = z
  .array(z.array(z.int().min(-200).max(1200)).min(2).max(4000))
  .min(1)
  .max(80)
export type Signature = z.infer<typeof signature>

/**
 * What became of a quote that was sent; the latest counts. Answered: the items that the customer accepted, none of them
 * where all are declined, by name, and signed where it was done on the glass. Withdrawn: it was none.
 */
export const quoteTurn = z.strictObject({
  quote: factId,
  at: instant,
  author: words(80),
  to: z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('answered'),
      accepted: z.array(words(200)).max(500),
      name: words(80).min(1),
      signature: signature.nullable().default(null),
    }),
    z.strictObject({ kind: z.literal('withdrawn'), why: words(200).default('') }),
    z.strictObject({ kind: z.literal('open') }),
  ]),
})
export type QuoteTurn = z.infer<typeof quoteTurn>

export const quoteTurnKind = factKind({
  kind: 'quoteTurn',
  collection: 'quoteTurns',
  schema: quoteTurn,
  owner: { kind: 'quote', field: 'quote' },
})
