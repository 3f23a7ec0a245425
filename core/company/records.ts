import * as z from 'zod'
import { priceList } from '../record'
import { savedView } from './list'

/** What a company keeps that belongs to no property, each kind once. */
export const COMPANY_RECORDS = {
  prices: priceList,
  views: z.array(savedView).max(60),
  /** Whether quotes take minutes as the company’s own works took them, and hunts the odds of what failed at its own. */
  tuning: z.strictObject({ minutes: z.boolean().default(true), odds: z.boolean().default(false) }),
} as const
export type CompanyRecordKind = keyof typeof COMPANY_RECORDS
export type CompanyRecordOf<K extends CompanyRecordKind> = z.infer<(typeof COMPANY_RECORDS)[K]>
