import * as z from 'zod'
import { conditionField } from './condition'
import { tag, words } from './ids'
import { known } from './known'

/** Somewhere wires stop: a cabinet, a box. Positions are metres east and north of the property's origin. */
export const place = z.strictObject({
  tag,
  name: words(80).default(''),
  kind: z.enum(['cabinet', 'valve_box', 'junction_box', 'other']),
  found: z.enum(['found', 'expected', 'lost']).default('found'),
  position: known(z.strictObject({ x_m: z.number(), y_m: z.number() })).default(null),
  condition: conditionField(),
})
export type Place = z.infer<typeof place>
