import { getQuery } from 'h3'
import * as z from 'zod'
import { parseWith } from '../../../../core/refusal'
import { stepsBefore } from '../../../db/properties'
import { database } from '../../../utils/database'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'

const query = z.strictObject({
  before: z.coerce
    .number()
    .int()
    .min(0)
    .max(2 ** 31 - 1),
})

/** Changes before a revision, fifty at a time, the latest first. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  return { steps: await stepsBefore(database(), id.value, asked.value.before) }
})
