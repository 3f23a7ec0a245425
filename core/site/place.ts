import * as z from 'zod'
import { conditionField } from './condition'
import { tag, words } from './ids'
import { known, knownFigure } from './known'

/** Metres east and north of the property's origin. */
export const point = z.strictObject({
  x_m: z.number().min(-100_000).max(100_000),
  y_m: z.number().min(-100_000).max(100_000),
})
export type Point = z.infer<typeof point>

/**
 * Somewhere wires stop: a cabinet, a box. `position` is where it was drawn or is expected, `foundAt` where it was
 * found.
 */
export const place = z.strictObject({
  tag,
  name: words(80).default(''),
  kind: z.enum(['cabinet', 'valve_box', 'junction_box', 'other']),
  found: z.enum(['found', 'expected', 'lost']).default('found'),
  position: known(point).default(null),
  foundAt: known(point).default(null),
  /** Of the lid below grade. */
  depth_m: knownFigure(z.number().min(0).max(10)).default(null),
  lid: words(80).default(''),
  marker: words(80).default(''),
  condition: conditionField(),
})
export type Place = z.infer<typeof place>
