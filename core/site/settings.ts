import * as z from 'zod'
import { gaugeSchema } from '../quantity'
import { words } from './ids'

const celsius = z.number().min(-40).max(90)
const ohmRange = z
  .strictObject({ low: z.number().min(0), high: z.number().positive() })
  .refine((r) => r.low < r.high, 'low must be below high')

/** How wire is sized: which school, and the worst that it must bear. */
const sizing = z.strictObject({
  school: z.enum(['coil_minimum', 'allowed_drop', 'reach_table']).default('coil_minimum'),
  /** From C to the coil and back; a ratio is of the volts at C. */
  allowedDrop: z
    .strictObject({ unit: z.enum(['V', 'ratio']), value: z.number().positive().max(30) })
    .default({ unit: 'V', value: 4 }),
  mainsLow_ratio: z.number().min(0).max(0.3).default(0.1),
  hottest_C: celsius.default(30),
  together: z.int().min(1).max(4).default(1),
})

/** A size in the stores: its price by length of one conductor. */
const stocked = z.strictObject({ gauge: gaugeSchema, cents_per_m: z.number().positive().max(100_000) })
const material = z.strictObject({
  /** Empty: the market's usual sizes at the price of their copper. */
  stock: z.array(stocked).max(12).default([]),
  /** Decoders by their number of outputs: what one costs. */
  decoders: z
    .array(z.strictObject({ outputs: z.int().min(1).max(16), cents: z.int().min(0).max(10_000_000) }))
    .max(16)
    .default([]),
  spools_m: z.array(z.number().positive().max(10_000)).max(8).default([]),
  slackPerEnd_m: z.number().min(0).max(20).default(1.5),
  expansion_ratio: z.number().min(0).max(0.5).default(0.02),
  reserve_ratio: z.number().min(0).max(1).default(0.1),
})

/** A connector that is carried: what its marking says it holds. Areas are of copper. */
const connectorSpec = z
  .strictObject({
    kind: z.enum(['gel_crimp_3', 'nut_and_gel_tube', 'gel_nut', 'solder_heatshrink']),
    least: z.int().min(1).max(12),
    most: z.int().min(2).max(12),
    thinnest_mm2: z.number().positive().max(50),
    thickest_mm2: z.number().positive().max(50),
    together_mm2: z.number().positive().max(200),
  })
  .refine((c) => c.least <= c.most && c.thinnest_mm2 <= c.thickest_mm2, 'the least must not exceed the most')

/** How new wiring is planned: growth, colours in order, what the van carries (none: the usual connectors). */
const wiring = z.strictObject({
  sparesLeast: z.int().min(0).max(40).default(2),
  spares_ratio: z.number().min(0).max(2).default(0.2),
  colours: z.array(words(40)).max(60).default([]),
  jackets: z.array(z.int().min(2).max(60)).max(20).default([]),
  multicoreFarthest_m: z.number().positive().max(5000).default(150),
  multicoreMost: z.int().min(1).max(60).default(12),
  connectors: z.array(connectorSpec).max(8).default([]),
  manyCommons: z.enum(['chain', 'split']).default('chain'),
})

/** What holds for the whole property until somebody says otherwise. Every default is explained in docs/numbers.md. */
export const settings = z.strictObject({
  soundSplice_ohm: z.number().min(0).max(1).default(0.03),
  soundSpliceSpread_ohm: z.number().min(0).max(1).default(0.02),
  coilTolerance_ratio: z.number().min(0).max(0.5).default(0.08),
  lengthTolerance_ratio: z.number().min(0).max(0.5).default(0.05),
  ground_C: celsius.default(20),
  coil_C: celsius.nullable().default(null),
  ruleOfThumb_ohm: ohmRange.default({ low: 20, high: 60 }),
  V_open_V: z.number().gt(24).max(60).default(27),
  mains_Hz: z.union([z.literal(50), z.literal(60)]).default(60),
  market: z.enum(['awg', 'metric']).default('awg'),
  units: z
    .strictObject({ length: z.enum(['m', 'ft']), temperature: z.enum(['C', 'F']) })
    .default({ length: 'ft', temperature: 'F' }),
  /** Of the clocks on its controllers: a name of the time-zone database. */
  timeZone: words(60).default('UTC'),
  /** A visit is due so many months after the last; null where none is waited for. */
  visitEvery_months: z.int().min(1).max(120).nullable().default(12),
  commonColour: words(40).default('white'),
  sizing: sizing.prefault({}),
  material: material.prefault({}),
  wiring: wiring.prefault({}),
  lightning: z.enum(['ordinary', 'frequent']).default('ordinary'),
})
export type Settings = z.infer<typeof settings>

/** The settings of a property in which nobody has said otherwise. */
export const usualSettings = (): Settings => settings.parse({})
