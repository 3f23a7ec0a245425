import * as z from 'zod'
import { cableId, controllerId, coreId, deviceId, spliceId, stopId, terminalId } from '../site/ids'

const stretch = { cable: cableId, from: stopId, to: stopId }
const ofController = <K extends string>(kind: K) => z.strictObject({ kind: z.literal(kind), controller: controllerId })
const ofDevice = <K extends string>(kind: K) => z.strictObject({ kind: z.literal(kind), device: deviceId })

/**
 * A part of the property that a finding names: what is mended by one repair and cannot be told apart any further
 * without a spade. It holds ids alone, so that it stays the same part whatever the record becomes around it.
 */
export const part = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('joint'), splice: spliceId }),
  /** One core between two openings, by the stops that it leaves and reaches. */
  z.strictObject({ kind: z.literal('run'), core: coreId, ...stretch }),
  /** Two cores that touch along a stretch that they share. */
  z.strictObject({ kind: z.literal('touch'), core: coreId, other: coreId, ...stretch }),
  ofDevice('coil'),
  ofDevice('valve'),
  /** Two leads taken for each other, or joined. */
  z.strictObject({ kind: z.literal('pair'), controller: controllerId, one: terminalId, two: terminalId }),
  z.strictObject({ kind: z.literal('terminal'), controller: controllerId, terminal: terminalId }),
  /** Something between a terminal and its coils that is none of the others. */
  z.strictObject({ kind: z.literal('thread'), controller: controllerId, terminal: terminalId }),
  ofController('supply'),
  ofController('sensor'),
  ofController('water'),
])
export type Part = z.infer<typeof part>
export type RunPart = Extract<Part, { kind: 'run' }>
