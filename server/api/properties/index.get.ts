import { getQuery } from 'h3'
import * as z from 'zod'
import { NEEDS, SORTS } from '../../../core/company'
import { parseWith } from '../../../core/refusal'
import { day, words } from '../../../core/site'
import { actingAs } from '../../db/actor'
import { listProperties } from '../../db/listing'
import { actorOf } from '../../utils/actor'
import { database } from '../../utils/database'
import { refuse } from '../../utils/reply'
import { route } from '../../utils/route'

const yes = z.enum(['yes', 'no']).default('no')
const query = z.strictObject({
  find: words(120).default(''),
  need: z.enum(NEEDS).optional(),
  sort: z.enum(SORTS).default('name'),
  down: yes,
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  archived: yes,
  today: day.optional(),
})

/** A window of the properties, by words, by what asks for somebody, in an order. */
export default route(async (event) => {
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const { find, need = null, down, archived, today = new Date().toISOString().slice(0, 10), ...rest } = asked.value
  return actingAs(database(), actorOf(event), (within) =>
    listProperties(within, {
      ...rest,
      find: find.trim(),
      need,
      down: down === 'yes',
      archived: archived === 'yes',
      today,
    }),
  )
})
