import * as z from 'zod'
import { refusal } from '../../refusal'
import { words } from '../../site/ids'
import { celsius, factId, instant, revisionNumber } from '../basics'
import { answers } from '../tests'
import { fieldTest } from '../tests/schema'
import { readingValue } from '../tests/value'
import { meter } from '../meter'
import { factKind } from './kind'

/** How things were while a reading was taken, where that was looked to: a fault may show in one of these only. */
export const WIRING_STATES = ['dry', 'wet', 'hot', 'moved'] as const
export type WiringState = (typeof WIRING_STATES)[number]

/** A reading is never edited: it is struck out with a reason, and taken again. */
export const reading = z
  .strictObject({
    job: factId,
    at: instant,
    author: words(80),
    revision: revisionNumber,
    test: fieldTest,
    off: z.enum(['all_leads', 'none']).default('all_leads'),
    meter,
    ground_C: celsius,
    value: readingValue,
    state: z.enum(WIRING_STATES).optional(),
  })
  .refine((r) => answers(r.test, r.value), { path: ['value'], error: 'a value of the kind that its test gives' })
export type Reading = z.infer<typeof reading>

export const readingKind = factKind({
  kind: 'reading',
  collection: 'readings',
  schema: reading,
  owner: { kind: 'job', field: 'job' },
  misfit: ({ revision }, latest) =>
    revision > latest.revision ? refusal('reading_ahead', ['revision'], { revision, latest: latest.revision }) : null,
})
