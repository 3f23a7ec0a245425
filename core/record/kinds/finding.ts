import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** What a visit found to be wrong and mended. `part` is the key of the part, as a hunt names it. */
export const finding = z.strictObject({
  visit: factId,
  at: instant,
  author: words(80),
  part: words(400),
  says: words(400),
  belief: z.number().min(0).max(1).nullable(),
  how: words(200),
})
export type Finding = z.infer<typeof finding>

export const findingKind = factKind({
  kind: 'finding',
  collection: 'findings',
  schema: finding,
  owner: { kind: 'visit', field: 'visit' },
})
