import * as z from 'zod'
import { words } from '../../site/ids'
import { instant } from '../basics'
import { factKind } from './kind'

/** A stay at the property, by whoever wrote it and the people with them. What is done in it are its jobs. */
export const visit = z.strictObject({
  at: instant,
  author: words(80),
  people: z.array(words(80).min(1)).max(20).default([]),
})
export type Visit = z.infer<typeof visit>

export const visitKind = factKind({ kind: 'visit', collection: 'visits', schema: visit })
