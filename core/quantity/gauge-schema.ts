import * as z from 'zod'

/** A conductor size: American wire gauge number, or nominal cross-section in mm². */
export const gaugeSchema = z.union([
  z.strictObject({ awg: z.int().min(0).max(30) }),
  z.strictObject({ area_mm2: z.number().positive().max(50) }),
])
export type Gauge = z.infer<typeof gaugeSchema>
