import * as z from 'zod'
import { conditionField } from './condition'
import { end } from './end'
import { placeId } from './ids'
import { known } from './known'

/** What was looked at when a joint was made: every end seen home, squeezed or twisted, tugged, sealed. */
export const jointTicks = ['home', 'squeezed', 'tugged', 'sealed'] as const

/**
 * A joint: ends held by one connector. With a terminal among its ends it is a landing, a clamp of no resistance;
 * with one end it is a cap.
 */
export const splice = z.strictObject({
  place: placeId,
  connector: z
    .enum([
      'gel_crimp_3',
      'nut_and_gel_tube',
      'gel_nut',
      'solder_heatshrink',
      'dry_nut',
      'bare_twist',
      'terminal',
      'cap',
      'unknown',
    ])
    .default('unknown'),
  ends: z.array(end).min(1).max(60),
  ticks: z.array(z.enum(jointTicks)).max(4).default([]),
  made: known(z.iso.date()).default(null),
  condition: conditionField(),
})
export type Splice = z.infer<typeof splice>
