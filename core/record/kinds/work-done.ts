import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/**
 * An item of a quote that was done: how long it took and what was really used, as far as somebody said. The latest for
 * an item counts; `undone` takes it back.
 */
export const workDone = z.strictObject({
  quote: factId,
  item: words(200).min(1),
  at: instant,
  author: words(80),
  minutes: z.number().min(0).max(10_000).nullable().default(null),
  used: z
    .array(z.strictObject({ code: words(40).min(1), quantity: z.number().min(0).max(100_000) }))
    .max(200)
    .default([]),
  undone: z.boolean().default(false),
})
export type WorkDone = z.infer<typeof workDone>

export const workDoneKind = factKind({
  kind: 'workDone',
  collection: 'worksDone',
  schema: workDone,
  owner: { kind: 'quote', field: 'quote' },
})
