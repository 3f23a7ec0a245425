import * as z from 'zod'
import { words } from '../../site/ids'
import { instant } from '../basics'
import { part } from '../part'
import { workTarget } from '../procedure'
import { factKind } from './kind'

/** What somebody may see that is wrong, besides what readings tell. */
export const SIGHTED = [
  'head_broken',
  'head_tilted',
  'leak',
  'weeping_valve',
  'lid_proud',
  'lid_sunken',
  'wet_box',
  'lost_box',
  'taped_joint',
  'cut_spare',
  'missing_link',
  'other',
] as const
/** What was seen, or a part that a hunt named and nobody has mended yet. */
const FOUND = [...SIGHTED, 'named'] as const
export type Sighted = (typeof FOUND)[number]

/** What it risks, the worst first: people, a zone, water and money, nothing for now. */
export const SEVERITIES = ['danger', 'stops', 'wastes', 'later'] as const
export type Severity = (typeof SEVERITIES)[number]

export const sighting = z
  .strictObject({
    at: instant,
    author: words(80),
    on: workTarget,
    what: z.enum(FOUND),
    /** The part that was named; what was seen has none, nor has what was kept before parts were. */
    part: part.optional(),
    severity: z.enum(SEVERITIES),
    note: words(300).default(''),
  })
  .superRefine(({ what, part }, context) => {
    if ((what === 'named') !== (part !== undefined))
      context.addIssue({ code: 'custom', path: ['part'], message: 'a part of what is named, and of nothing else' })
  })
export type Sighting = z.infer<typeof sighting>

export const sightingKind = factKind({ kind: 'sighting', collection: 'sightings', schema: sighting })
