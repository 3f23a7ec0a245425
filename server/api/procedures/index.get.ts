import { actingAs } from '../../db/actor'
import { ownProcedures } from '../../db/procedures'
import { actorOf } from '../../utils/actor'
import { database } from '../../utils/database'
import { route } from '../../utils/route'

/** The procedures that the company wrote for itself. */
export default route(async (event) => ({
  procedures: await actingAs(database(), actorOf(event), (within) => ownProcedures(within)),
}))
