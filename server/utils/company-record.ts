import { getRouterParam, type H3Event } from 'h3'
import { COMPANY_RECORDS, type CompanyRecordKind } from '../../core/company'
import { accepted, refusal, refused, type Outcome } from '../../core/refusal'

/** The kind of company record named by the address. */
export function companyRecordParam(event: H3Event): Outcome<CompanyRecordKind> {
  const kind = getRouterParam(event, 'kind') ?? ''
  return kind in COMPANY_RECORDS
    ? accepted(kind as CompanyRecordKind)
    : refused(refusal('no_company_record', ['address']))
}
