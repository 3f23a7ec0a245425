import * as z from 'zod'
import { deviceId } from '../../site/ids'

/** As the meter, the ear or the lamp gave it; ohms before the leads' own are taken off. */
export const readingValue = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('ohm'), ohm: z.number().min(0).max(1e9) }),
  z.strictObject({ kind: z.literal('open') }),
  z.strictObject({ kind: z.literal('volt'), volt: z.number().min(0).max(300) }),
  z.strictObject({ kind: z.literal('heard'), heard: z.boolean() }),
  z.strictObject({ kind: z.literal('lamp'), lamp: z.enum(['good', 'open', 'short', 'lit', 'dark']) }),
  z.strictObject({ kind: z.literal('waters'), valves: z.array(deviceId).max(40) }),
  z.strictObject({ kind: z.literal('flows'), flows: z.boolean() }),
  z.strictObject({ kind: z.literal('looked'), sound: z.boolean() }),
  /** Metres along the conductor from the cabinet; null where the tone is heard to its end. */
  z.strictObject({ kind: z.literal('tone'), lost_m: z.number().min(0).max(20_000).nullable() }),
])
export type ReadingValue = z.infer<typeof readingValue>
export type OhmsValue = Extract<ReadingValue, { kind: 'ohm' | 'open' }>
