import * as z from 'zod'
import { words } from './ids'

const celsius = z.number().min(-40).max(90)
const ohmRange = z.strictObject({ low: z.number().min(0), high: z.number().positive() })
  .refine((r) => r.low < r.high, 'low must be below high')

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
  units: z.strictObject({ length: z.enum(['m', 'ft']), temperature: z.enum(['C', 'F']) })
    .default({ length: 'ft', temperature: 'F' }),
  commonColour: words(40).default('white'),
  lightning: z.enum(['ordinary', 'frequent']).default('ordinary'),
})
export type Settings = z.infer<typeof settings>
