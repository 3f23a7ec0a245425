import * as z from 'zod'
import { words } from '../site/ids'

/**
 * An ohmmeter as its user describes it once. `openMark` is what it shows for open; a meter that shows a bare 1 means
 * "more than the range". `leadZero_ohm` is what it reads with its own leads together, taken off every reading.
 */
export const meter = z.strictObject({
  name: words(60).default(''),
  openMark: z.enum(['OL', '1']),
  accuracy_ratio: z.number().min(0).max(0.2),
  offset_ohm: z.number().min(0).max(20),
  leadZero_ohm: z.number().min(0).max(20),
  highest_ohm: z.number().min(100).max(1e9),
})
export type Meter = z.infer<typeof meter>

/** An everyday hand meter: 1 % and two counts of a tenth, leads nulled, 20 MΩ. */
export const COMMON_METER: Meter = {
  name: '',
  openMark: 'OL',
  accuracy_ratio: 0.01,
  offset_ohm: 0.2,
  leadZero_ohm: 0,
  highest_ohm: 20e6,
}
