import * as z from 'zod'
import { day, words } from './ids'

/**
 * What state a part is known to be in. `open` is broken and known to be: it does not conduct in any prediction.
 * `abandoned` is out of use; whatever is still joined to it conducts as before.
 */
export const condition = z.strictObject({
  state: z.enum(['sound', 'suspect', 'open', 'abandoned']),
  since: day.nullable().default(null),
  note: words(300).default(''),
})
export type Condition = z.infer<typeof condition>

export const SOUND: Condition = { state: 'sound', since: null, note: '' }
/** A condition field; sound where nothing else is on record. A function, so that each schema has its own. */
export const conditionField = () => condition.default(SOUND)
