import * as z from 'zod'
import { COMPANY_RECORDS, type CompanyRecordOf } from '../../core/company'
import { ask, fetchCompanyRecord } from './api'
import { keepOdds } from './device'
import { oddsHere } from './odds'
import { today } from './today'

const rate = z.object({
  of: z.string(),
  now: z.int(),
  years: z.number(),
  failed: z.int(),
  foundBad: z.int(),
  perYear: z.object({ mean: z.number(), low: z.number(), high: z.number() }).nullable(),
})
const rates = z.object({ kinds: z.array(rate), ages: z.array(rate) })
const weights = z.record(z.string(), z.number())
/** Of the engine’s odds what is shown; the rest goes through as it is. */
const odds = z.looseObject({
  families: weights,
  connector: weights,
  coilKinds: weights,
  ages: z.object({ joint: weights, coil: weights }),
})
const failures = z.object({
  rates: z.object({ joint: rates, coil: rates }),
  found: weights,
  odds: z.object({ usual: odds, own: odds }),
})
export type Failures = z.infer<typeof failures>

/** What fails how often over all properties of the company, and the odds of the engine beside those it makes. */
export const fetchFailures = () => ask(failures, `/api/failures?today=${today()}`)

export type Tuning = CompanyRecordOf<'tuning'>
export const USUAL_TUNING: Tuning = COMPANY_RECORDS.tuning.parse({})
export const fetchTuning = () => fetchCompanyRecord('tuning', COMPANY_RECORDS.tuning)

/** Asks which odds the company goes by; without a signal they stay as they are. */
export async function agreedOdds(): Promise<unknown> {
  const tuning = await fetchTuning()
  if (tuning.kind !== 'ok') return oddsHere()
  if (!(tuning.value.record?.odds ?? false)) keepOdds(null)
  else {
    const found = await fetchFailures()
    if (found.kind === 'ok') keepOdds(JSON.stringify(found.value.odds.own))
  }
  return oddsHere()
}
