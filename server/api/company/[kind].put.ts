import * as z from 'zod'
import { COMPANY_RECORDS } from '../../../core/company'
import { refusal } from '../../../core/refusal'
import { actingAs } from '../../db/actor'
import { keepCompanyRecord } from '../../db/company-records'
import { actorOf } from '../../utils/actor'
import { companyRecordParam } from '../../utils/company-record'
import { database } from '../../utils/database'
import { refuse } from '../../utils/reply'
import { readBodyAs, route } from '../../utils/route'

/** Keeps what the company has of a kind, in place of the revision it began from. */
export default route(async (event) => {
  const kind = companyRecordParam(event)
  if (!kind.ok) return refuse(event, 404, kind.refusals)
  const body = z.strictObject({ base: z.int().min(0), record: COMPANY_RECORDS[kind.value] as z.ZodType })
  const sent = await readBodyAs(event, body)
  if (!sent.ok) return refuse(event, sent.status, sent.refusals)
  const { base, record } = sent.value
  const revision = await actingAs(database(), actorOf(event), (within) =>
    keepCompanyRecord(within, kind.value, base, record),
  )
  if (revision === null) return refuse(event, 409, [refusal('company_changed_since')])
  return { revision }
})
