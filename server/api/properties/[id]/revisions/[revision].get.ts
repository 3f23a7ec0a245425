import { getRouterParam } from 'h3'
import * as z from 'zod'
import { revisionNumber } from '../../../../../core/record'
import { parseWith, refusal } from '../../../../../core/refusal'
import { actingAs } from '../../../../db/actor'
import { readRevision } from '../../../../db/journal'
import { actorOf } from '../../../../utils/actor'
import { database } from '../../../../utils/database'
import { refuse } from '../../../../utils/reply'
import { propertyParam, route } from '../../../../utils/route'

const revision = z.coerce.number().pipe(revisionNumber)

/** The site as it was at a revision. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const asked = parseWith(revision, getRouterParam(event, 'revision'), ['revision'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const found = await actingAs(
    database(),
    actorOf(event),
    (within) => readRevision(within, id.value, asked.value),
    'repeatable read',
  )
  if (!found) return refuse(event, 404, [refusal('no_such_revision')])
  return found.ok ? found.value : refuse(event, 422, [refusal('unreadable_record'), ...found.refusals])
})
