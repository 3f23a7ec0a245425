import * as z from 'zod'
import { placeId, tag, words } from '../../site/ids'
import { point } from '../../site/place'
import { factId, instant } from '../basics'
import { factKind } from './kind'

const metres = z.number().min(-20_000).max(20_000)

/** How somebody knows where they stand. */
export const FIX_KINDS = ['map', 'paces', 'phone', 'offsets'] as const

/** What was marked on the way along a buried line. */
export const marked = z.discriminatedUnion('kind', [
  /** A flag: where it stands, by what, and within how many metres that holds. */
  z.strictObject({
    kind: z.literal('way'),
    at: point,
    by: z.enum(FIX_KINDS),
    within_m: z.number().min(0).max(1000),
    note: words(120).default(''),
  }),
  /** A reading of the wand: along the path in metres, and in a section across it, to the right. */
  z.strictObject({
    kind: z.literal('wand'),
    section: tag.nullable().default(null),
    along_m: metres,
    across_m: metres.default(0),
    height_m: z.number().min(0).max(3).default(0),
    tilt_deg: z.number().min(-80).max(80).default(0),
    mode: z.enum(['null', 'peak']),
    gain: z.number().min(1e-6).max(1e6).default(1),
    reading: z.number().min(0).max(1e9),
  }),
  /** The ground was probed for the box, and it was there, or it was not. */
  z.strictObject({ kind: z.literal('probe'), at: point, hit: z.boolean() }),
  /** The box by somebody’s own steps from a box that is known. */
  z.strictObject({
    kind: z.literal('paced'),
    from: placeId,
    distance_m: z.number().min(0).max(20_000),
    /** Clockwise from north; null where only how far is known. */
    bearing_deg: z.number().min(0).max(360).nullable().default(null),
  }),
  /** Takes one of the above back. */
  z.strictObject({ kind: z.literal('back'), mark: factId }),
])
export type Marked = z.infer<typeof marked>

export const mark = z.strictObject({ job: factId, at: instant, author: words(80), marked })
export type Mark = z.infer<typeof mark>

export const markKind = factKind({
  kind: 'mark',
  collection: 'marks',
  schema: mark,
  owner: { kind: 'job', field: 'job' },
})
