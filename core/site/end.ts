import * as z from 'zod'
import { cableId, controllerId, coreId, deviceId, placeId, stopId, terminalId } from './ids'

/**
 * Something a joint can hold. A piece of core has one end at the stop where it `leaves` towards the jacket's far
 * end and one at the stop where it `arrives`.
 */
export const end = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('core'),
    cable: cableId,
    core: coreId,
    stop: stopId,
    side: z.enum(['arrives', 'leaves']),
  }),
  z.strictObject({
    kind: z.literal('port'),
    device: deviceId,
    port: z.string().regex(/^[a-z0-9_]{1,12}$/, 'the name of a port, such as a or out_1'),
  }),
  z.strictObject({ kind: z.literal('terminal'), controller: controllerId, terminal: terminalId }),
  z.strictObject({ kind: z.literal('earth'), place: placeId }),
])
export type End = z.infer<typeof end>
export type CoreEnd = Extract<End, { kind: 'core' }>
