import { getQuery } from 'h3'
import * as z from 'zod'
import { adoptedOdds, cellsOf, ratesOf } from '../../core/failures'
import { USUAL_ODDS } from '../../core/hunt'
import { parseWith } from '../../core/refusal'
import { day } from '../../core/site'
import { actingAs } from '../db/actor'
import { foundKinds, livesOfAll } from '../db/part-lives'
import { actorOf } from '../utils/actor'
import { database } from '../utils/database'
import { refuse } from '../utils/reply'
import { route } from '../utils/route'

const asked = z.strictObject({ today: day })

/**
 * How often joints and coils fail, by kind and age, over all properties; what hunts found bad; and the odds of the
 * engine, ours and as these counts make them.
 */
export default route(async (event) => {
  const query = parseWith(asked, getQuery(event), ['query'])
  if (!query.ok) return refuse(event, 400, query.refusals)
  const [lives, found] = await actingAs(
    database(),
    actorOf(event),
    async (within) => [await livesOfAll(within), await foundKinds(within)] as const,
    'repeatable read',
  )
  const cells = cellsOf(lives, query.value.today)
  return { rates: ratesOf(cells), found, odds: { usual: USUAL_ODDS, own: adoptedOdds(cells, found) } }
})
