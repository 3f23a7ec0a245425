import * as z from 'zod'
import { command } from '../site/command'
import { words } from '../site/ids'
import { instant, revisionNumber, uuid } from './basics'
import { factBodies, type FactBody } from './kinds'

/** The version of site, file and message together. A change of any of them raises it. */
export const SCHEMA_VERSION = 8

/**
 * A change to the site: all commands or none, one step of undo. `base` is the revision it was made on, with the
 * sender's own batches of `onTopOf`, which were waiting then and are later than the base.
 */
export const batch = z.strictObject({
  kind: z.literal('batch'),
  base: revisionNumber,
  onTopOf: z.array(uuid).max(1000).default([]),
  commands: z.array(command).min(1).max(5000),
})
export type Batch = z.infer<typeof batch>

/** Takes a batch back. It is a batch itself, so it can be taken back too. */
export const undo = z.strictObject({ kind: z.literal('undo'), undoes: uuid })

export const messageBody = z.discriminatedUnion('kind', [batch, undo, ...factBodies])
export type MessageBody = z.infer<typeof batch> | z.infer<typeof undo> | FactBody

/** One entry of the outbox. Its id is chosen by the page; sent twice, it counts once. */
export const message = z.strictObject({
  id: uuid,
  /** What an older page wrote still holds: later versions have only added fields that may be left out. */
  schema: z.int().min(1).max(SCHEMA_VERSION),
  property: uuid,
  author: words(80),
  device: words(80),
  at: instant,
  body: messageBody,
})
export type Message = Omit<z.infer<typeof message>, 'body'> & { body: MessageBody }
