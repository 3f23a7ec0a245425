import { getQuery } from 'h3'
import * as z from 'zod'
import { uuid } from '../../../core/record'
import { parseWith } from '../../../core/refusal'
import { words } from '../../../core/site'
import { actingAs } from '../../db/actor'
import { listProperties } from '../../db/listing'
import { actorOf } from '../../utils/actor'
import { database } from '../../utils/database'
import { refuse } from '../../utils/reply'
import { route } from '../../utils/route'

const query = z.strictObject({
  find: words(120).default(''),
  after: uuid.optional(),
  archived: z.enum(['yes', 'no']).default('no'),
})

/** Properties by name, a page at a time. */
export default route(async (event) => {
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const { find, after = null, archived } = asked.value
  return actingAs(database(), actorOf(event), (within) =>
    listProperties(within, { find: find.trim(), after, archived: archived === 'yes' }),
  )
})
