import * as z from 'zod'
import { controllerId, deviceId, pointOfConnectionId, terminalId, words } from './ids'

const flow_Lmin = z.number().positive().max(1e6).nullable().default(null)

/** Intent: the terminal that is meant to run these valves, and the zone they water. */
export const station = z.strictObject({
  controller: controllerId,
  terminal: terminalId,
  /** On a two-wire path: the number that its decoder answers to. The terminal is then the path's first screw. */
  address: z.int().min(0).max(9999).nullable().default(null),
  name: words(80),
  zone: words(80).default(''),
  valves: z.array(deviceId).max(40).default([]),
  pointOfConnection: pointOfConnectionId.nullable().default(null),
  /** Whether the controller brings the master terminal of its point of connection on with it. */
  withMaster: z.boolean().default(true),
  /** Water it takes while it runs, L/min; null is not known. */
  flow_Lmin,
})
export type Station = z.infer<typeof station>

const reach = z.enum(['direct', 'path'])

/** Where water comes in, and which devices play a role there. Intent again: the wiring may differ. */
export const pointOfConnection = z.strictObject({
  name: words(80),
  masterValve: deviceId.nullable().default(null),
  pumpRelay: deviceId.nullable().default(null),
  flowSensor: deviceId.nullable().default(null),
  terminal: z.strictObject({ controller: controllerId, terminal: terminalId }).nullable().default(null),
  /** The most water it gives, L/min; null is not known. */
  most_Lmin: flow_Lmin,
  masterRest: z.enum(['closed', 'open']).default('closed'),
  /** How each device is reached, as declared in the controller's set-up. */
  reached: z
    .strictObject({
      masterValve: reach.default('direct'),
      pumpRelay: reach.default('direct'),
      flowSensor: reach.default('direct'),
    })
    .prefault({}),
})
export type PointOfConnection = z.infer<typeof pointOfConnection>
