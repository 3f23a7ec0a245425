import * as z from 'zod'

/** Ids are chosen by whoever makes the record and never change: letters, digits, `_` and `-`, at most 64. */
const idText = z
  .string()
  .regex(
    /^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/,
    'an id of 1 to 64 letters, digits, _ or -, beginning with a letter or digit',
  )

export const placeId = idText.brand<'place'>()
export const controllerId = idText.brand<'controller'>()
export const terminalId = idText.brand<'terminal'>()
export const cableId = idText.brand<'cable'>()
export const stopId = idText.brand<'stop'>()
export const coreId = idText.brand<'core'>()
export const spliceId = idText.brand<'splice'>()
export const deviceId = idText.brand<'device'>()
export const coilKindId = idText.brand<'coilKind'>()
export const stationId = idText.brand<'station'>()
export const pointOfConnectionId = idText.brand<'pointOfConnection'>()
export const underlayId = idText.brand<'underlay'>()
export const defectId = idText.brand<'defect'>()
export const temporaryStateId = idText.brand<'temporaryState'>()
export const systemId = idText.brand<'system'>()
export const programId = idText.brand<'program'>()

export type PlaceId = z.infer<typeof placeId>
export type ControllerId = z.infer<typeof controllerId>
export type TerminalId = z.infer<typeof terminalId>
export type CableId = z.infer<typeof cableId>
export type StopId = z.infer<typeof stopId>
export type CoreId = z.infer<typeof coreId>
export type SpliceId = z.infer<typeof spliceId>
export type DeviceId = z.infer<typeof deviceId>
export type CoilKindId = z.infer<typeof coilKindId>
export type StationId = z.infer<typeof stationId>
export type PointOfConnectionId = z.infer<typeof pointOfConnectionId>
export type UnderlayId = z.infer<typeof underlayId>
export type DefectId = z.infer<typeof defectId>
export type TemporaryStateId = z.infer<typeof temporaryStateId>
export type SystemId = z.infer<typeof systemId>
export type ProgramId = z.infer<typeof programId>

/** Words on the property: names, colours, notes. Control characters and halves of characters have no place in them. */
export const words = (most: number) =>
  z
    .string()
    .max(most)
    .regex(/^[^\p{Cc}\p{Cs}]*$/u, 'plain text on one line')
/** A short label as painted on a lid or a terminal: `A`, `B4`, `MV`. */
export const tag = z
  .string()
  .regex(/^[^\s:,\p{Cc}\p{Cs}]{1,12}$/u, 'a tag of 1 to 12 characters without spaces, colons or commas')
/** A calendar day, `2026-03-14`. */
export const day = z.iso.date()
