import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/**
 * A reading taken as the new baseline of its thread by hand: the coil was changed, or the record is known to be off.
 */
export const acceptance = z.strictObject({ reading: factId, at: instant, author: words(80), reason: words(200) })
export type Acceptance = z.infer<typeof acceptance>

export const acceptanceKind = factKind({
  kind: 'acceptance',
  collection: 'acceptances',
  schema: acceptance,
  owner: { kind: 'reading', field: 'reading' },
})
