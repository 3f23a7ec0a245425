import { refusal } from '../../../../core/refusal'
import { actingAs } from '../../../db/actor'
import { deleteProperty } from '../../../db/lifecycle'
import { actorOf } from '../../../utils/actor'
import { database } from '../../../utils/database'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'

/** Deletes a property that was archived before, with everything that was read there. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const done = await actingAs(database(), actorOf(event), (within) => deleteProperty(within, id.value))
  if (done === 'deleted') return { deleted: id.value }
  return refuse(event, done === 'archive_first' ? 409 : 404, [refusal(done)])
})
