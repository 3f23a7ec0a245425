import * as z from 'zod'
import { conditionField } from './condition'
import { placeId, systemId, tag, terminalId, words } from './ids'

/** A screw or clamp. `label` is what the door says where it differs from the tag. */
export const terminal = z.strictObject({
  tag,
  role: z.enum(['common', 'station', 'master', 'sensor', 'path', 'other']),
  label: words(40).default(''),
  order: z.int().min(0).max(9999),
})
export type Terminal = z.infer<typeof terminal>

/** A slot for a module: what is in it, or null where it is empty. Stations count on through the bays in order. */
export const bay = z.strictObject({
  tag,
  module: z
    .strictObject({
      kind: z.enum(['stations', 'decoders']),
      stations: z.int().min(1).max(400),
      label: words(40).default(''),
    })
    .nullable()
    .default(null),
})
export type Bay = z.infer<typeof bay>

/** A timer with its terminals, keyed by id. */
export const controller = z.strictObject({
  tag,
  name: words(80),
  place: placeId,
  kind: z.enum(['conventional', 'two_wire', 'hybrid']).default('conventional'),
  terminals: z.record(terminalId, terminal),
  /** What its two-wire path speaks. Its path screws are pairs in their order: one pair an exit. */
  system: systemId.nullable().default(null),
  transformer: z
    .strictObject({
      rating_VA: z.number().positive().max(2000).nullable().default(null),
      /** Its unloaded volts, where they were measured; else the property's. */
      open_V: z.number().gt(24).max(60).nullable().default(null),
    })
    .nullable()
    .default(null),
  /**
   * The controller starts a station only when its master valve is in: the valve then holds while the station starts.
   */
  masterFirst: z.boolean().default(false),
  /** Most that may hang on the master terminal, holding. */
  masterLimit_A: z.number().positive().max(10).default(0.28),
  /** Stations it has without any module; null where nobody has counted. */
  fixedStations: z.int().min(0).max(400).nullable().default(null),
  /** The most that it runs in all, screws and numbers of its path together; null where nobody has looked. */
  mostStations: z.int().min(1).max(9999).nullable().default(null),
  bays: z.array(bay).max(24).default([]),
  /** Most conductors under the common terminal. */
  commonHolds: z.int().min(1).max(2).default(1),
  /** How it runs programs, and the most it can be told; null where nobody has looked. */
  scheduling: z
    .strictObject({
      /** A start that falls while it runs waits its turn, or runs beside. */
      startsRun: z.enum(['stack', 'overlap']).default('stack'),
      delay_s: z.int().min(0).max(3600).default(0),
      mostMinutes: z.number().positive().max(10_080).nullable().default(null),
      mostStarts: z.int().min(1).max(24).nullable().default(null),
      mostPrograms: z.int().min(1).max(40).nullable().default(null),
      /** Seconds of the day between which it may water; over midnight where it closes earlier than it opens. */
      window_s: z
        .strictObject({ opens: z.int().min(0).max(86_400), closes: z.int().min(0).max(86_400) })
        .nullable()
        .default(null),
    })
    .prefault({}),
  indoor: z.boolean().nullable().default(null),
  lockable: z.boolean().nullable().default(null),
  sensor: z
    .strictObject({
      /** What bridges the sensor terminals. */
      closedBy: z.enum(['link', 'sensor', 'nothing', 'unknown']).default('unknown'),
      /** How the sensor's contact stands in the dry, by its sheet. */
      dry: z.enum(['open', 'closed', 'unknown']).default('unknown'),
      note: words(120).default(''),
    })
    .prefault({}),
  /** The port for a hand-held remote: colours of its two AC feeds and its signal. */
  remotePort: z
    .strictObject({ feed_1: words(40).default(''), feed_2: words(40).default(''), signal: words(40).default('') })
    .nullable()
    .default(null),
  condition: conditionField(),
})
export type Controller = z.infer<typeof controller>
