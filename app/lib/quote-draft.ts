import * as z from 'zod'
import { REPAIR_CODES } from '../../core/repair'
import { keepQuoteDraft, quoteDraft } from './device'

/**
 * What is chosen for a quote: a repair for each part, by its key, and lines of its own for findings and anything else.
 */
const draft = z.object({
  /** Null: not quoted. A part that is not here has the first repair that is possible. */
  repairs: z.record(z.string(), z.enum(REPAIR_CODES).nullable()).default({}),
  lines: z
    .array(
      z.object({
        id: z.string(),
        sighting: z.string().nullable(),
        code: z.string(),
        quantity: z.string(),
      }),
    )
    .default([]),
})
export type QuoteDraft = z.infer<typeof draft>

/** As this device keeps it; nothing chosen where it keeps none, or none that can be read. */
export function draftFor(property: string): QuoteDraft {
  try {
    return draft.parse(JSON.parse(quoteDraft(property) ?? '{}'))
  } catch {
    return draft.parse({})
  }
}
export const keepDraftOf = (property: string, now: QuoteDraft): void => keepQuoteDraft(property, JSON.stringify(now))
