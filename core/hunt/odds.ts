import * as z from 'zod'
import { placeId, type PlaceId } from '../site'

/** What can be wrong with a part. */
export const CAUSES = [
  'open',
  'series',
  'leak',
  'touch',
  'intermittent',
  'coil_open',
  'coil_short',
  'coil_part',
  'coil_dc',
  'coil_kind',
  'swapped',
  'doubled',
  'misjoined',
  'terminal_dead',
  'supply_dead',
  'sensor_open',
  'stuck_shut',
  'stuck_open',
  'water_off',
] as const
export type Cause = (typeof CAUSES)[number]

/** The families among which trouble is counted. A common is the return that several stations share. */
export const FAMILIES = ['coil', 'splice', 'conductor', 'common', 'record', 'supply'] as const
export type Family = (typeof FAMILIES)[number]

const share = z.number().min(0).max(1000)
const times = z.number().min(0.01).max(1000)

/**
 * How often which trouble is met before anything is measured. Every figure is a weight: families against each other,
 * causes within their family, and circumstances by which a part is likelier than its like. `docs/numbers.md` gives
 * the reason of each.
 */
export const oddsBasis = z.strictObject({
  /** No fault in the wiring, one, two … eight. */
  count: z.array(share).min(2).max(9).default([15, 45, 22, 10, 4, 2, 1, 0.6, 0.4]),
  families: z
    .strictObject({
      coil: share.default(25),
      splice: share.default(30),
      conductor: share.default(20),
      common: share.default(10),
      record: share.default(10),
      supply: share.default(5),
    })
    .prefault({}),
  causes: z
    .strictObject({
      coil: z
        .strictObject({
          coil_open: share.default(62),
          coil_short: share.default(19),
          coil_part: share.default(14),
          coil_dc: share.default(5),
        })
        .prefault({}),
      splice: z
        .strictObject({
          open: share.default(68),
          series: share.default(24),
          leak: share.default(4),
          intermittent: share.default(4),
        })
        .prefault({}),
      conductor: z
        .strictObject({
          open: share.default(66),
          series: share.default(8),
          touch: share.default(18),
          leak: share.default(8),
        })
        .prefault({}),
      common: z
        .strictObject({ open: share.default(80), series: share.default(16), leak: share.default(4) })
        .prefault({}),
      record: z
        .strictObject({
          swapped: share.default(66),
          doubled: share.default(20),
          coil_kind: share.default(14),
          misjoined: share.default(12),
        })
        .prefault({}),
      supply: z
        .strictObject({
          supply_dead: share.default(20),
          sensor_open: share.default(10),
          terminal_dead: share.default(25),
          stuck_shut: share.default(25),
          stuck_open: share.default(10),
          water_off: share.default(10),
        })
        .prefault({}),
    })
    .prefault({}),
  /**
   * Joints by what holds them, and by the years since they were made: a joint at `old_years` counts twice a new one.
   */
  connector: z
    .strictObject({ bare_twist: times.default(20), dry_nut: times.default(6), unknown: times.default(2) })
    .prefault({}),
  old_years: z.number().min(1).max(100).default(10),
  /** A part on record as suspect. */
  suspect: times.default(6),
  digging: times.default(8),
  flooding: times.default(4),
  lightning: times.default(4),
  othersWork: times.default(5),
  rodents: times.default(3),
})
export type OddsBasis = z.infer<typeof oddsBasis>
export const USUAL_ODDS: OddsBasis = oddsBasis.parse({})

/** What is known of the season: where somebody dug, where water stood, and what else befell the property. */
export const circumstances = z.strictObject({
  digging: z.array(placeId).default([]),
  flooding: z.array(placeId).default([]),
  rodents: z.array(placeId).default([]),
  lightning: z.boolean().default(false),
  othersWork: z.boolean().default(false),
})
export type Circumstances = z.infer<typeof circumstances>
export const QUIET: Circumstances = circumstances.parse({})

/** How many times likelier circumstances make a cause at these places. */
export function circumstanceFactor(
  basis: OddsBasis,
  c: Circumstances,
  family: Family,
  cause: Cause,
  places: readonly PlaceId[],
): number {
  const near = (list: readonly PlaceId[]) => places.some((p) => list.includes(p))
  let factor = 1
  if ((family === 'conductor' || family === 'common') && near(c.digging)) factor *= basis.digging
  if ((family === 'conductor' || family === 'common') && near(c.rodents)) factor *= basis.rodents
  if ((cause === 'series' || cause === 'leak' || cause === 'intermittent') && near(c.flooding)) factor *= basis.flooding
  if (c.lightning && (family === 'coil' || cause === 'supply_dead' || cause === 'terminal_dead'))
    factor *= basis.lightning
  if (c.othersWork && family === 'record') factor *= basis.othersWork
  return factor
}
