import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** How a thing of the kit stands: out of the van, back in it, or neither. */
export const KIT_STATES = ['out', 'back', 'none'] as const

/**
 * A thing of a visit’s kit that was ticked: by its name, of connectors and coils with their kind. The latest counts.
 */
export const kitTick = z.strictObject({
  visit: factId,
  at: instant,
  author: words(80),
  item: z.string().regex(/^[a-z][a-z0-9_]{0,39}( [A-Za-z0-9_-]{1,64})?$/, 'a thing of the kit'),
  state: z.enum(KIT_STATES),
})
export type KitTick = z.infer<typeof kitTick>

export const kitKind = factKind({
  kind: 'kit',
  collection: 'kits',
  schema: kitTick,
  owner: { kind: 'visit', field: 'visit' },
})
