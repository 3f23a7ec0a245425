import * as z from 'zod'
import { refusal } from '../../../../core/refusal'
import { actingAs } from '../../../db/actor'
import { archiveProperty } from '../../../db/lifecycle'
import { actorOf } from '../../../utils/actor'
import { database } from '../../../utils/database'
import { refuse } from '../../../utils/reply'
import { propertyParam, readBodyAs, route } from '../../../utils/route'

const body = z.strictObject({ archived: z.boolean() })

/** Takes a property off the list, or puts it back. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const sent = await readBodyAs(event, body)
  if (!sent.ok) return refuse(event, sent.status, sent.refusals)
  const { archived } = sent.value
  const done = await actingAs(database(), actorOf(event), (within) => archiveProperty(within, id.value, archived))
  return done ? { archived } : refuse(event, 404, [refusal('no_such_property')])
})
