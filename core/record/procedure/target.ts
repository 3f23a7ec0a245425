import * as z from 'zod'
import { cableId, controllerId, deviceId, placeId, spliceId, terminalId } from '../../site/ids'

/** What a piece of work is done on. Ids alone, so that it stays the same thing whatever becomes of the record. */
export const workTarget = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('property') }),
  z.strictObject({ kind: z.literal('controller'), controller: controllerId }),
  z.strictObject({ kind: z.literal('terminal'), controller: controllerId, terminal: terminalId }),
  z.strictObject({ kind: z.literal('box'), place: placeId }),
  z.strictObject({ kind: z.literal('joint'), splice: spliceId }),
  z.strictObject({ kind: z.literal('coil'), device: deviceId }),
  z.strictObject({ kind: z.literal('device'), device: deviceId }),
  z.strictObject({ kind: z.literal('cable'), cable: cableId }),
])
export type WorkTarget = z.infer<typeof workTarget>
export type TargetKind = WorkTarget['kind']

/** A text that is equal for the same thing. */
export const targetKey = (target: WorkTarget): string =>
  Object.entries(target)
    .sort(([a], [b]) => (a === 'kind' ? -1 : b === 'kind' ? 1 : a.localeCompare(b)))
    .map(([, value]) => value)
    .join(' ')
