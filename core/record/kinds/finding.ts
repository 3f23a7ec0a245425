import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { part } from '../part'
import { factKind } from './kind'

/**
 * What was found to be wrong and mended. `where` is null of a part that is on record no more; `says` told it in
 * words.
 */
export const finding = z.strictObject({
  job: factId,
  at: instant,
  author: words(80),
  where: part.nullable(),
  says: words(400),
  belief: z.number().min(0).max(1).nullable(),
  how: words(200),
})
export type Finding = z.infer<typeof finding>

export const findingKind = factKind({
  kind: 'finding',
  collection: 'findings',
  schema: finding,
  owner: { kind: 'job', field: 'job' },
})
