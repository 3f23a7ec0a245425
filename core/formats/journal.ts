import * as z from 'zod'
import { instant, revisionNumber, SCHEMA_VERSION, uuid } from '../record'
import { command, siteSchema, words, write } from '../site'

const writtenWith = z.int().min(1).max(SCHEMA_VERSION)

/** An accepted change: who made it, and what each field was and became. */
export const journalStep = z.strictObject({
  id: uuid,
  revision: revisionNumber.min(1),
  author: words(80),
  device: words(80),
  at: instant,
  undoes: uuid.nullable(),
  schema: writtenWith,
  commands: z.array(command),
  writes: z.array(write),
})
export type JournalStep = z.infer<typeof journalStep>

/** The site at a revision: past ones in between are found from the snapshot before them and the steps since. */
export const snapshot = z.strictObject({ revision: revisionNumber, schema: writtenWith, site: siteSchema })
export type Snapshot = z.infer<typeof snapshot>

/** How a property came to be what it is. A file may do without: then its past begins with the day it is taken in. */
export const journal = z.strictObject({ snapshots: z.array(snapshot), steps: z.array(journalStep) })
export type Journal = z.infer<typeof journal>
