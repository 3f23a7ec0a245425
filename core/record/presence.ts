import * as z from 'zod'
import { words } from '../site/ids'
import { factId } from './basics'

/** What somebody has open: a tab of a place by its name, the job, the box, the end of a cable. */
export const doing = z.strictObject({
  tab: z.string().regex(/^[a-z]{1,20}(\.[A-Za-z]{1,20})?$/, 'the name of a tab'),
  job: factId.nullable().default(null),
  box: factId.nullable().default(null),
})
export type Doing = z.infer<typeof doing>

/** Somebody at a property, as their device tells it every few seconds; `doing` is null of one who has left. */
export const presence = z.strictObject({
  device: words(80).min(1),
  name: words(80),
  doing: doing.nullable(),
})
export type Presence = z.infer<typeof presence>
