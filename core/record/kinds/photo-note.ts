import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** A place on a picture, as parts of its width and its height from the upper left. */
const spot = z.strictObject({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) })
/** An arrow on a picture and a word at its tail. The picture itself stays as it was taken. */
export const photoMark = z.strictObject({ from: spot, to: spot, says: words(60).default('') })
export type PhotoMark = z.infer<typeof photoMark>

/** What is said of a photo and drawn on it; the latest counts. `gone`: it is shown no more. */
export const photoNote = z.strictObject({
  photo: factId,
  at: instant,
  author: words(80),
  says: words(200).default(''),
  marks: z.array(photoMark).max(30).default([]),
  gone: z.boolean().default(false),
})
export type PhotoNote = z.infer<typeof photoNote>

export const photoNoteKind = factKind({
  kind: 'photoNote',
  collection: 'photoNotes',
  schema: photoNote,
  owner: { kind: 'photo', field: 'photo' },
})
