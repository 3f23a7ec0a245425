import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { workTarget } from '../procedure/target'
import { factKind } from './kind'

/** The address of a picture: the SHA-256 of its bytes. */
const sha256 = z.string().regex(/^[0-9a-f]{64}$/, 'a SHA-256 in small hexadecimal figures')
const pixels = z.int().min(1).max(20_000)

/**
 * A photo that was taken: its bytes and a small one’s by their addresses, what it is of, and where it was taken in the
 * course of a job, that job and the step.
 */
export const photo = z.strictObject({
  at: instant,
  author: words(80),
  sha256,
  thumb: sha256,
  width_px: pixels,
  height_px: pixels,
  on: workTarget,
  job: factId.optional(),
  step: z.string().max(200).optional(),
})
export type Photo = z.infer<typeof photo>

export const photoKind = factKind({ kind: 'photo', collection: 'photos', schema: photo })
