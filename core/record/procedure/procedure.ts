import * as z from 'zod'
import { words } from '../../site/ids'
import { slug, step } from './step'

export const FAMILIES = [
  'visit',
  'joints',
  'boxes',
  'valves',
  'controller',
  'commission',
  'trace',
  'sequencer',
  'two_wire',
  'cable',
] as const
export type Family = (typeof FAMILIES)[number]

/** What is carried. */
export const KIT = [
  'meter',
  'spare_battery',
  'tester',
  'tracer',
  'stake',
  'mallet',
  'connectors',
  'spare_coil',
  'o_rings',
  'lid_tool',
  'flags',
  'light',
  'cutters',
  'pliers',
  'stripper',
  'rod',
  'iron',
  'sleeves',
  'caps',
  'ties',
  'labels',
  'screwdriver',
  'spade',
  'probe',
  'level',
  'gravel',
  'fabric',
  'tape',
  'penetrating_oil',
  'wrench',
  'box_extension',
  'programmer',
  'earth_tester',
  'insulation_tester',
  'rods_and_bonds',
  'glasses',
  'gloves',
  'camera',
  'thermometer',
] as const
export type KitItem = (typeof KIT)[number]

/** The kinds of thing that work is done on. */
export const WORK_ON = ['property', 'controller', 'terminal', 'box', 'joint', 'coil', 'device', 'cable'] as const

/** Which of the things of a kind a procedure is for. */
const SUITS = [
  'any',
  'gel_crimp_3',
  'nut_and_gel_tube',
  'gel_nut',
  'solder_heatshrink',
  'made',
  'with_master',
  'with_relay',
  'with_bays',
  'with_sensor_terminals',
  'with_remote_port',
  'multicore',
  'decoder',
  'sequencer',
  'with_path',
] as const
export type Suits = (typeof SUITS)[number]

/**
 * A way of doing a piece of work: data, made ready on a thing of the property. `from` names the one that a company’s
 * own was copied from.
 */
export const procedure = z
  .strictObject({
    id: slug,
    title: words(80).min(1).optional(),
    from: slug.nullable().default(null),
    family: z.enum(FAMILIES),
    on: z.enum(WORK_ON),
    suits: z.enum(SUITS).default('any'),
    /** Parts of it are for a licensed person. */
    licensed: z.boolean().default(false),
    kit: z.array(z.enum(KIT)).default([]),
    steps: z.array(step).min(1).max(80),
  })
  .refine((p) => new Set(p.steps.map((s) => s.id)).size === p.steps.length, {
    path: ['steps'],
    error: 'steps with names of their own',
  })
export type Procedure = z.infer<typeof procedure>
/** As it is written down: what may be left out is. */
export type ProcedureText = z.input<typeof procedure>
