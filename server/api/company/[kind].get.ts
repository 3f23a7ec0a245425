import { actingAs } from '../../db/actor'
import { companyRecord } from '../../db/company-records'
import { actorOf } from '../../utils/actor'
import { companyRecordParam } from '../../utils/company-record'
import { database } from '../../utils/database'
import { refuse } from '../../utils/reply'
import { route } from '../../utils/route'

/** What the company keeps of a kind, with the revision it is at; 0 and null where it keeps none. */
export default route(async (event) => {
  const kind = companyRecordParam(event)
  if (!kind.ok) return refuse(event, 404, kind.refusals)
  return actingAs(database(), actorOf(event), (within) => companyRecord(within, kind.value))
})
