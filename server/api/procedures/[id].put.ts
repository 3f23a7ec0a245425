import { getRouterParam } from 'h3'
import * as z from 'zod'
import { brokenCopy } from '../../../core/procedure'
import { procedure } from '../../../core/record'
import { refusal } from '../../../core/refusal'
import { actingAs } from '../../db/actor'
import { keepProcedure } from '../../db/procedures'
import { actorOf } from '../../utils/actor'
import { database } from '../../utils/database'
import { changedProcedure } from '../../utils/procedure'
import { refuse } from '../../utils/reply'
import { readBodyAs, route } from '../../utils/route'

const body = z.strictObject({ base: z.int().min(0), procedure })

/**
 * Keeps a procedure of the company’s own, with our cautions and holds in it; in place of the revision it began from.
 */
export default route(async (event) => {
  const sent = await readBodyAs(event, body)
  if (!sent.ok) return refuse(event, sent.status, sent.refusals)
  const { base, procedure } = sent.value
  if (getRouterParam(event, 'id') !== procedure.id)
    return refuse(event, 400, [refusal('procedure_other_name', ['procedure', 'id'])])
  const broken = brokenCopy(procedure).map((b) => ({ ...b, path: ['procedure', ...b.path] }))
  if (broken.length > 0) return refuse(event, 422, broken)
  return changedProcedure(
    event,
    await actingAs(database(), actorOf(event), (within) => keepProcedure(within, base, procedure)),
  )
})
