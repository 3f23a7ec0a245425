import * as z from 'zod'
import { gaugeSchema } from '../quantity'
import { tag, words } from '../site/ids'

/**
 * A station as people list it. `station` is its terminal's tag, with the controller's before it where there are
 * several; `MV` and `relay` name the master valve and the pump relay. What is null is not known, and stays so.
 */
export const stationRow = z.strictObject({
  station: z.string().regex(/^([^\s:,\p{Cc}\p{Cs}]{1,12}:)?[^\s:,\p{Cc}\p{Cs}]{1,12}$/u, 'a terminal such as 3 or A:3'),
  name: words(80).default(''),
  zone: words(80).default(''),
  cable: tag.nullable().default(null),
  box: tag.nullable().default(null),
  /** Metres along the cable from the controller. */
  at_m: z.number().min(0).max(20_000).nullable().default(null),
  /** A coil kind of the property by its name, or a new one by its ohms. */
  coil: words(80).nullable().default(null),
  colour: words(40).nullable().default(null),
  kind: z.enum(['multicore', 'single']).nullable().default(null),
  gauge: gaugeSchema.nullable().default(null),
})
export type StationRow = z.infer<typeof stationRow>

export const MASTER = 'MV'
export const RELAY = 'relay'
