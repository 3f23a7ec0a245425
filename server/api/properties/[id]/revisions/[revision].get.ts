import { getRouterParam } from 'h3'
import * as z from 'zod'
import { parseWith, refusal } from '../../../../../core/refusal'
import { readRevision } from '../../../../db/properties'
import { database } from '../../../../utils/database'
import { refuse } from '../../../../utils/reply'
import { propertyParam, route } from '../../../../utils/route'

const revision = z.coerce
  .number()
  .int()
  .min(0)
  .max(2 ** 31 - 1)

/** The site as it was at a revision. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const asked = parseWith(revision, getRouterParam(event, 'revision'), ['revision'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  return (await readRevision(database(), id.value, asked.value)) ?? refuse(event, 404, [refusal('no_such_revision')])
})
