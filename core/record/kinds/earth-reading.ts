import * as z from 'zod'
import { deviceId, words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/**
 * What an earth read, by an earth tester on the unbonded rod or by a clamp where a loop exists. `of`: the rod, the
 * plate, or the arrestor whose earth it is. The other kind takes a reading back.
 */
export const earthed = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('read'),
    of: deviceId,
    ohm: z.number().min(0).max(100_000),
    soil: z.enum(['dry', 'moist', 'wet']),
    how: z.enum(['unbonded', 'clamp']),
    instrument: words(80).default(''),
  }),
  z.strictObject({ kind: z.literal('back'), reading: factId }),
])
export type Earthed = z.infer<typeof earthed>

export const earthReading = z.strictObject({ at: instant, author: words(80), earthed })
export type EarthReading = z.infer<typeof earthReading>

export const earthReadingKind = factKind({
  kind: 'earthReading',
  collection: 'earthReadings',
  schema: earthReading,
})
