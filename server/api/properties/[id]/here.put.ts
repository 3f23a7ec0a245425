import { presence } from '../../../../core/record'
import { refusal } from '../../../../core/refusal'
import { actingAs } from '../../../db/actor'
import { tell } from '../../../db/notices'
import { findProperty } from '../../../db/sites'
import { actorOf } from '../../../utils/actor'
import { database } from '../../../utils/database'
import { refuse } from '../../../utils/reply'
import { propertyParam, readBodyAs, route } from '../../../utils/route'

/** Says that somebody is at a property, and what they have open; kept nowhere. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const who = await readBodyAs(event, presence)
  if (!who.ok) return refuse(event, who.status, who.refusals)
  const known = await actingAs(database(), actorOf(event), async (within) => {
    if (!(await findProperty(within, id.value))) return false
    await tell(within, id.value, { kind: 'here', who: who.value, at: new Date().toISOString() })
    return true
  })
  return known ? { told: true } : refuse(event, 404, [refusal('no_such_property')])
})
