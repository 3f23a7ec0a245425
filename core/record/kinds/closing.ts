import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** The end of a job: whether the dial was put back to run, on purpose. */
export const closing = z.strictObject({ job: factId, at: instant, author: words(80), dialBack: z.boolean() })
export type Closing = z.infer<typeof closing>

export const closingKind = factKind({
  kind: 'closing',
  collection: 'closings',
  schema: closing,
  owner: { kind: 'job', field: 'job' },
})
