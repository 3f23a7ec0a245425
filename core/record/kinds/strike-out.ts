import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** A reading that does not count, and why. */
export const strikeOut = z.strictObject({ reading: factId, at: instant, author: words(80), reason: words(200) })
export type StrikeOut = z.infer<typeof strikeOut>

export const strikeOutKind = factKind({
  kind: 'strikeOut',
  collection: 'strikeOuts',
  schema: strikeOut,
  owner: { kind: 'reading', field: 'reading' },
})
