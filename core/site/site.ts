import * as z from 'zod'
import { cable } from './cable'
import { controller } from './controller'
import { defect } from './defect'
import { coilKind, device } from './device'
import {
  cableId,
  coilKindId,
  controllerId,
  defectId,
  deviceId,
  placeId,
  pointOfConnectionId,
  programId,
  spliceId,
  stationId,
  systemId,
  temporaryStateId,
  underlayId,
  words,
} from './ids'
import { place } from './place'
import { program } from './program'
import { settings } from './settings'
import { splice } from './splice'
import { pointOfConnection, station } from './station'
import { system } from './system'
import { temporaryState } from './temporary-state'
import { underlay } from './underlay'

/** The name of a property, at whatever door it comes in. */
export const propertyName = words(120).min(1, 'a name')

/** The records that are not in a collection, as a record of their own so that commands write them the same way. */
export const about = z.strictObject({
  name: propertyName,
  contractor: words(120).default(''),
  origin: z
    .strictObject({ latitude_deg: z.number().min(-90).max(90), longitude_deg: z.number().min(-180).max(180) })
    .nullable()
    .default(null),
})

/** Every collection of the site: its key's schema and its record's. The order is the order of the file's page. */
export const COLLECTIONS = {
  places: { id: placeId, record: place },
  controllers: { id: controllerId, record: controller },
  coilKinds: { id: coilKindId, record: coilKind },
  devices: { id: deviceId, record: device },
  cables: { id: cableId, record: cable },
  splices: { id: spliceId, record: splice },
  stations: { id: stationId, record: station },
  pointsOfConnection: { id: pointOfConnectionId, record: pointOfConnection },
  underlays: { id: underlayId, record: underlay },
  defects: { id: defectId, record: defect },
  temporaryStates: { id: temporaryStateId, record: temporaryState },
  systems: { id: systemId, record: system },
  programs: { id: programId, record: program },
} as const
export type CollectionName = keyof typeof COLLECTIONS

/**
 * The fields of a record by name, each with its schema. Where a collection holds several kinds, those of the record's
 * own kind, which itself may become any of them; without a record, the fields of all kinds.
 */
export function fieldsOf(name: CollectionName, record?: unknown): Readonly<Record<string, z.ZodType>> {
  const schema = COLLECTIONS[name].record
  if (!(schema instanceof z.ZodDiscriminatedUnion)) return schema.shape
  const kinds = schema.options.map((o) => o.shape.kind.value)
  const own = schema.options.filter(
    (o) => record === undefined || (record as { kind: unknown }).kind === o.shape.kind.value,
  )
  return Object.assign({}, ...own.map((o) => o.shape), { kind: z.enum(kinds) })
}

/**
 * One property: intent (stations, points of connection), wiring (cables, splices, devices), and with each figure how
 * it is known and in what condition the part is. Everything else the product shows is computed from this.
 */
export const siteSchema = z.strictObject({
  about,
  settings,
  places: z.record(placeId, place),
  controllers: z.record(controllerId, controller),
  coilKinds: z.record(coilKindId, coilKind),
  devices: z.record(deviceId, device),
  cables: z.record(cableId, cable),
  splices: z.record(spliceId, splice),
  stations: z.record(stationId, station),
  pointsOfConnection: z.record(pointOfConnectionId, pointOfConnection),
  underlays: z.record(underlayId, underlay).default({}),
  defects: z.record(defectId, defect).default({}),
  temporaryStates: z.record(temporaryStateId, temporaryState).default({}),
  systems: z.record(systemId, system).default({}),
  programs: z.record(programId, program).default({}),
})
export type Site = z.infer<typeof siteSchema>

/** A property with a name and nothing in the ground yet. */
export function emptySite(name: string): Site {
  return siteSchema.parse({
    about: { name },
    settings: {},
    places: {},
    controllers: {},
    coilKinds: {},
    devices: {},
    cables: {},
    splices: {},
    stations: {},
    pointsOfConnection: {},
    underlays: {},
    defects: {},
    temporaryStates: {},
    systems: {},
    programs: {},
  })
}
