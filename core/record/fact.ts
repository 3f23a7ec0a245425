import * as z from 'zod'
import { end } from '../site/end'
import { controllerId, words } from '../site/ids'
import { meter } from './meter'

export const factId = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/, 'an id of 1 to 64 letters, digits, _ or -')
const celsius = z.number().min(-40).max(90)
/** A moment, with its offset from UTC; clocks that were never set are refused. */
export const instant = z.iso.datetime({ offset: true }).refine((text) => /^(19[7-9]|20|21)/.test(text), 'a moment between 1970 and 2199')

/** The safety lines that a sweep asks to be ticked, in their order. */
export const CAUTIONS = ['schedule_paused', 'power_off', 'leads_off'] as const
export const cautionCode = z.enum(CAUTIONS)
export type CautionCode = z.infer<typeof cautionCode>

/** Somebody at the property with a meter: one sweep of one controller. */
export const visit = z.strictObject({
  at: instant,
  author: words(80),
  controller: controllerId,
  title: words(80).default(''),
  ground_C: celsius,
  coil_C: celsius.nullable().default(null),
  meter,
})
export type Visit = z.infer<typeof visit>

/** An ohms measurement between two probe points with the conductors off the controller. */
export const ohmsTest = z.strictObject({ kind: z.literal('ohms'), from: end, to: end })
export type OhmsTest = z.infer<typeof ohmsTest>

/** As the meter showed it, before the leads' own ohms are taken off. */
export const readingValue = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('ohm'), ohm: z.number().min(0).max(1e9) }),
  z.strictObject({ kind: z.literal('open') }),
])
export type ReadingValue = z.infer<typeof readingValue>

/** A reading is never edited: it is struck out with a reason, and taken again. */
export const reading = z.strictObject({
  visit: factId,
  at: instant,
  author: words(80),
  revision: z.int().min(0),
  test: ohmsTest,
  off: z.enum(['all_leads']).default('all_leads'),
  meter,
  ground_C: celsius,
  value: readingValue,
})
export type Reading = z.infer<typeof reading>

export const strikeOut = z.strictObject({ reading: factId, at: instant, author: words(80), reason: words(200) })
export type StrikeOut = z.infer<typeof strikeOut>

export const caution = z.strictObject({ visit: factId, at: instant, author: words(80), code: cautionCode })
export type Caution = z.infer<typeof caution>

/** The end of a visit: whether the dial was put back to run, on purpose. */
export const closing = z.strictObject({ visit: factId, at: instant, author: words(80), dialBack: z.boolean() })
export type Closing = z.infer<typeof closing>

/** All facts of a property by their ids. */
export const factsSchema = z.strictObject({
  visits: z.record(factId, visit).default({}),
  readings: z.record(factId, reading).default({}),
  strikeOuts: z.record(factId, strikeOut).default({}),
  cautions: z.record(factId, caution).default({}),
  closings: z.record(factId, closing).default({}),
})
export type Facts = z.infer<typeof factsSchema>

export const noFacts = (): Facts => ({ visits: {}, readings: {}, strikeOuts: {}, cautions: {}, closings: {} })
