import * as z from 'zod'
import { words } from '../../site/ids'
import { testKinds, type FieldTestKind } from '../tests'
import { hazard } from './hazard'

/** A name within a procedure: small letters, digits and `_`. */
export const slug = z.string().regex(/^[a-z][a-z0-9_]{0,39}$/, 'a name of small letters, digits and _')

/** What a step is unfolded over: once for each of these at what the procedure is done on. */
export const EACH = [
  'controller',
  /** Every terminal whose thread can be read at the cabinet, in the order of the door. */
  'thread',
  /** Every coil that a sequencer or a decoder hides from the cabinet. */
  'hidden_coil',
  /** Every station, in the order of least walking. */
  'station',
  /** Every terminal with something under its screw, the common last. */
  'landed',
  'coil',
  'joint',
  'spare',
  'temporary',
] as const
export type Each = (typeof EACH)[number]

/** What must be so of the thing at hand for a step to be there. */
export const CONDITIONS = [
  'has_bays',
  'has_master',
  'has_path',
  'has_relay',
  'has_remote_port',
  'has_sensor',
  'no_sensor',
  'has_spares',
] as const
export type StepCondition = (typeof CONDITIONS)[number]

/** One of the answers of a choice. One that does not pass leaves a hold shut. */
export const stepOption = z.strictObject({
  id: slug,
  says: words(120).min(1).optional(),
  passes: z.boolean().default(true),
})
export type StepOption = z.infer<typeof stepOption>

const QUANTITIES = ['C', 'V', 'A', 'ohm', 'count', 'bar'] as const
/** Figures of the record that a step’s own figure is held against. */
export const AGAINST = ['master_limit_A', 'stations'] as const

/** What answers a step. */
export const stepDoes = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('tick') }),
  z.strictObject({ kind: z.literal('choice'), options: z.array(stepOption).min(2).max(8) }),
  /** A figure that is written down; within `low` and `high` it is well, or against one of the record’s. */
  z.strictObject({
    kind: z.literal('figure'),
    quantity: z.enum(QUANTITIES),
    low: z.number().nullable().default(null),
    high: z.number().nullable().default(null),
    against: z.enum(AGAINST).optional(),
  }),
  /** A test of ours at the thing at hand; `to` where it is ohms at the terminal. */
  z.strictObject({
    kind: z.literal('measure'),
    test: z.enum(testKinds as [FieldTestKind, ...FieldTestKind[]]),
    to: z.enum(['common', 'earth']).optional(),
  }),
  z.strictObject({ kind: z.literal('text') }),
  z.strictObject({ kind: z.literal('day') }),
  z.strictObject({ kind: z.literal('photo') }),
  /** Every reading of the job that does not fit is read anew, or taken as baseline with its reason. */
  z.strictObject({ kind: z.literal('settle') }),
])
export type StepDoes = z.infer<typeof stepDoes>

/** What a step writes into the record of the property once it is answered. */
export const DEEDS = [
  'tick_home',
  'tick_squeezed',
  'tick_tugged',
  'tick_sealed',
  'joint_opened',
  'joint_kind',
  'coil_new',
  'box_found',
  'sensor_in',
  'spare_capped',
  'temporary_begins',
  'temporary_ends',
] as const
export type Deed = (typeof DEEDS)[number]

/**
 * One step. Ours is said in the message files by its name; a company’s own carries its words. A `hold` is not passed
 * before it is answered, or refused with a reason. What `floats` may be moved by a company.
 */
export const step = z.strictObject({
  id: slug,
  says: words(300).min(1).optional(),
  why: words(300).min(1).optional(),
  cautions: z.array(hazard).max(6).default([]),
  hold: z.boolean().default(false),
  floats: z.boolean().default(false),
  each: z.enum(EACH).optional(),
  if: z.array(z.enum(CONDITIONS)).default([]),
  /** Only after another step was answered so; any of these. */
  when: z.array(z.strictObject({ step: slug, is: z.array(slug).min(1) })).default([]),
  does: stepDoes.prefault({ kind: 'tick' }),
  deed: z.enum(DEEDS).optional(),
  /** Leads on to the procedure that makes what it is done on. */
  leads: z.literal('making').optional(),
  /** How long to wait or to hold, where the step has a time. */
  minutes: z.number().positive().max(600).optional(),
})
export type Step = z.infer<typeof step>
