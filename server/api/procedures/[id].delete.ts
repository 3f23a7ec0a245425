import { getQuery, getRouterParam } from 'h3'
import * as z from 'zod'
import { parseWith } from '../../../core/refusal'
import { actingAs } from '../../db/actor'
import { removeProcedure } from '../../db/procedures'
import { actorOf } from '../../utils/actor'
import { database } from '../../utils/database'
import { changedProcedure } from '../../utils/procedure'
import { refuse } from '../../utils/reply'
import { route } from '../../utils/route'

const query = z.strictObject({ base: z.coerce.number().int().min(0) })

/** Takes a procedure of the company’s own off, where it is still at the revision that was seen. */
export default route(async (event) => {
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const id = getRouterParam(event, 'id') ?? ''
  return changedProcedure(
    event,
    await actingAs(database(), actorOf(event), (within) => removeProcedure(within, id, asked.value.base)),
  )
})
