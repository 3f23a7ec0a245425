import * as z from 'zod'
import { words } from '../site'

/** What a property may ask for somebody with; `any` is one of them. */
export const NEEDS = ['any', 'faults', 'findings', 'creeping', 'temporary', 'quotes', 'visit'] as const
export type Need = (typeof NEEDS)[number]

/** What the list of properties is sorted by. */
export const SORTS = ['name', 'need', 'visit', 'due', 'changed'] as const
export type Sort = (typeof SORTS)[number]

/** How somebody looks at the list. */
export const looking = z.strictObject({
  find: words(120).default(''),
  need: z.enum(NEEDS).nullable().default(null),
  sort: z.enum(SORTS).default('name'),
  down: z.boolean().default(false),
})
export type Looking = z.infer<typeof looking>

/** A way of looking that is kept under a name, for everybody of the company. */
export const savedView = z.strictObject({ name: words(60).min(1), looking })
export type SavedView = z.infer<typeof savedView>
