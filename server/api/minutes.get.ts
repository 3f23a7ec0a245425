import { actingAs } from '../db/actor'
import { takenMinutes } from '../db/taken'
import { actorOf } from '../utils/actor'
import { database } from '../utils/database'
import { route } from '../utils/route'

/** How long repairs really took, by their codes, over all properties of the company. */
export default route(async (event) => ({
  taken: await actingAs(database(), actorOf(event), (within) => takenMinutes(within)),
}))
