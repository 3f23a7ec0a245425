import * as z from 'zod'
import { gaugeSchema } from '../quantity'
import { conditionField } from './condition'
import { coreId, placeId, stopId, tag, words } from './ids'
import { known, knownFigure } from './known'

const metres = z.number().min(0).max(20_000)

/** A place the jacket passes, and how many metres of cable lie between it and the jacket's beginning. */
export const stop = z.strictObject({ id: stopId, place: placeId, at_m: knownFigure(metres) })
export type Stop = z.infer<typeof stop>

/**
 * One conductor of the jacket. It is cut at the inner stops in `cutAt` and runs through the others.
 * `conditions` holds what is known of a stretch, keyed by the stop it leaves.
 */
export const core = z.strictObject({
  colour: known(words(40)).default(null),
  gauge: known(gaugeSchema).default(null),
  cutAt: z.array(stopId).default([]),
  conditions: z.record(stopId, conditionField()).default({}),
  condition: conditionField(),
  order: z.int().min(0).max(999).default(0),
})
export type Core = z.infer<typeof core>

/** A jacket with its ordered stops and its cores. A core without a gauge of its own has the cable's. */
export const cable = z.strictObject({
  tag: tag.nullable().default(null),
  name: words(80).default(''),
  kind: z.enum(['multicore', 'single', 'twisted_pair']),
  gauge: known(gaugeSchema).default(null),
  stops: z.array(stop).min(2).max(400),
  cores: z.record(coreId, core),
  /** How much warmer than the ground elsewhere this run lies, K: under paving, along a wall. */
  warmer_K: z.number().min(-40).max(60).default(0),
  installed: known(z.iso.date()).default(null),
  condition: conditionField(),
})
export type Cable = z.infer<typeof cable>
