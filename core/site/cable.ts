import * as z from 'zod'
import { gaugeSchema } from '../quantity'
import { conditionField } from './condition'
import { coreId, placeId, stationId, stopId, tag, words } from './ids'
import { known, knownFigure } from './known'
import { point } from './place'

const metres = z.number().min(0).max(20_000)

/** A place the jacket passes, and how many metres of cable lie between it and the jacket's beginning. */
export const stop = z.strictObject({ id: stopId, place: placeId, at_m: knownFigure(metres) })
export type Stop = z.infer<typeof stop>

/** What a core is kept for by decision, whatever a plan would choose. */
const pin = z.discriminatedUnion('use', [
  z.strictObject({ use: z.literal('station'), station: stationId }),
  z.strictObject({ use: z.literal('common') }),
  z.strictObject({ use: z.literal('spare') }),
])
export type Pin = z.infer<typeof pin>

/**
 * One conductor of the jacket. It is cut at the inner stops in `cutAt` and runs through the others.
 * `conditions` holds what is known of a stretch, keyed by the stop it leaves; `colourAt` a colour that was seen at a
 * stop and differs from the core's own.
 */
export const core = z.strictObject({
  colour: known(words(40)).default(null),
  colourAt: z.record(stopId, words(40)).default({}),
  pinned: pin.nullable().default(null),
  gauge: known(gaugeSchema).default(null),
  cutAt: z.array(stopId).default([]),
  conditions: z.record(stopId, conditionField()).default({}),
  condition: conditionField(),
  order: z.int().min(0).max(999).default(0),
})
export type Core = z.infer<typeof core>

/** A stretch of the way that matters to whoever digs or pulls: metres along the jacket. */
export const wayMark = z
  .strictObject({
    kind: z.enum(['sleeve', 'hazard']),
    from_m: metres,
    to_m: metres,
    note: words(120).default(''),
  })
  .refine((m) => m.from_m <= m.to_m, 'the end must not lie before the beginning')
export type WayMark = z.infer<typeof wayMark>

/** A jacket with its ordered stops and its cores. A core without a gauge of its own has the cable's. */
export const cable = z.strictObject({
  tag: tag.nullable().default(null),
  name: words(80).default(''),
  /** A jumper is a short piece within one box; its stops are both there. */
  kind: z.enum(['multicore', 'single', 'twisted_pair', 'jumper']),
  gauge: known(gaugeSchema).default(null),
  stops: z.array(stop).min(2).max(400),
  cores: z.record(coreId, core),
  /** The bends between a stop and the next, keyed by the stop they follow. */
  bends: z.record(stopId, z.array(point).max(400)).default({}),
  marks: z.array(wayMark).max(60).default([]),
  /** A strand in the jacket that is no core, as it looks. */
  filler: words(40).default(''),
  /** How much warmer than the ground elsewhere this run lies, K: under paving, along a wall. */
  warmer_K: z.number().min(-40).max(60).default(0),
  installed: known(z.iso.date()).default(null),
  condition: conditionField(),
})
export type Cable = z.infer<typeof cable>

/** Whether a jacket lies in the ground or was seen: then it has the cores it has, and no plan can add one. */
export const isLaid = (cable: Cable): boolean =>
  cable.installed !== null || Object.values(cable.cores).some((c) => c.colour?.how === 'seen')
