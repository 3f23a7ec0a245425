import * as z from 'zod'
import { words } from '../../site/ids'
import { factId, instant } from '../basics'
import { factKind } from './kind'

/** The safety lines that a sweep asks to be ticked, in their order. */
export const CAUTIONS = ['schedule_paused', 'power_off', 'leads_off'] as const
export const cautionCode = z.enum(CAUTIONS)
export type CautionCode = z.infer<typeof cautionCode>

/** A safety line that was ticked. */
export const caution = z.strictObject({ job: factId, at: instant, author: words(80), code: cautionCode })
export type Caution = z.infer<typeof caution>

export const cautionKind = factKind({
  kind: 'caution',
  collection: 'cautions',
  schema: caution,
  owner: { kind: 'job', field: 'job' },
})
