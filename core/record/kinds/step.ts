import * as z from 'zod'
import { day, words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** What a step of a procedure was answered with. The latest answer counts; `undone` takes the one before back. */
export const stepAnswer = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('done') }),
  z.strictObject({ kind: z.literal('chosen'), option: z.string().regex(/^[a-z][a-z0-9_]{0,39}$/) }),
  z.strictObject({ kind: z.literal('figure'), value: z.number().min(-1e9).max(1e9) }),
  z.strictObject({ kind: z.literal('text'), text: words(300).min(1) }),
  z.strictObject({ kind: z.literal('day'), day }),
  /** A reading of this job, which the step asked for. */
  z.strictObject({ kind: z.literal('reading'), reading: factId }),
  z.strictObject({ kind: z.literal('photo'), photo: factId }),
  /** Not done, on purpose. */
  z.strictObject({ kind: z.literal('refused'), reason: words(200).min(1) }),
  z.strictObject({ kind: z.literal('undone') }),
])
export type StepAnswer = z.infer<typeof stepAnswer>

/** An answer to a step of a procedure. `step` is its name, and of one that is there several times what it is for. */
export const stepDone = z.strictObject({
  job: factId,
  at: instant,
  author: words(80),
  step: z.string().regex(/^[a-z][a-z0-9_]{0,39}(@[A-Za-z0-9 _-]{1,140})?$/, 'the name of a step'),
  /** The cautions of the step were ticked. */
  heeded: z.boolean().default(false),
  answer: stepAnswer,
})
export type StepDone = z.infer<typeof stepDone>

export const stepKind = factKind({
  kind: 'step',
  collection: 'steps',
  schema: stepDone,
  owner: { kind: 'job', field: 'job' },
})
