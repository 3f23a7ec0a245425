import * as z from 'zod'
import { conditionField } from './condition'
import { placeId, tag, terminalId, words } from './ids'

/** A screw or clamp. `label` is what the door says where it differs from the tag. */
export const terminal = z.strictObject({
  tag,
  role: z.enum(['common', 'station', 'master', 'sensor', 'path', 'other']),
  label: words(40).default(''),
  order: z.int().min(0).max(9999),
})
export type Terminal = z.infer<typeof terminal>

/** A timer with its terminals, keyed by id. */
export const controller = z.strictObject({
  tag,
  name: words(80),
  place: placeId,
  kind: z.enum(['conventional', 'two_wire', 'hybrid']).default('conventional'),
  terminals: z.record(terminalId, terminal),
  transformer: z.strictObject({ rating_VA: z.number().positive().max(2000) }).nullable().default(null),
  condition: conditionField(),
})
export type Controller = z.infer<typeof controller>
