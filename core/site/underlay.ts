import * as z from 'zod'
import { words } from './ids'
import { point } from './place'

/** A pixel of the picture and the place on the property that it shows. */
const tie = z.strictObject({ px: z.number().min(0).max(100_000), py: z.number().min(0).max(100_000), at: point })

/**
 * A photo or scanned plan under the map. Its bytes are kept by their SHA-256; two ties scale, turn and place it. Until
 * there are two it lies with its middle at the origin, `width_m` wide.
 */
export const underlay = z.strictObject({
  name: words(120),
  sha256: z.string().regex(/^[0-9a-f]{64}$/, 'the SHA-256 of the picture in hex'),
  width_px: z.int().min(1).max(20_000),
  height_px: z.int().min(1).max(20_000),
  width_m: z.number().positive().max(20_000).default(100),
  ties: z.array(tie).max(2).default([]),
  opacity: z.number().min(0).max(1).default(0.6),
})
export type Underlay = z.infer<typeof underlay>
