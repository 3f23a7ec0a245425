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
  /** The controller starts a station only when its master valve is in: the valve then holds while the station starts. */
  masterFirst: z.boolean().default(false),
  /** Most that may hang on the master terminal, holding. */
  masterLimit_A: z.number().positive().max(10).default(0.28),
  condition: conditionField(),
})
export type Controller = z.infer<typeof controller>
