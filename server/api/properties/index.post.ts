import { getQuery, setResponseStatus } from 'h3'
import { v7 } from 'uuid'
import * as z from 'zod'
import { readProperty } from '../../../core/formats'
import { parseWith, refusal } from '../../../core/refusal'
import { storeProperty } from '../../db/properties'
import { database } from '../../utils/database'
import { refuse } from '../../utils/reply'
import { readText, route } from '../../utils/route'

/** `as=copy` gives the property an id and a name of its own. */
const query = z.strictObject({
  as: z.enum(['itself', 'copy']).default('itself'),
  name: z.string().min(1).max(120).optional(),
})

/** Takes a property file in, whole or not at all. */
export default route(async (event) => {
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const body = await readText(event)
  if (!body.ok) return refuse(event, body.status, [refusal(body.code)])
  const read = readProperty(body.text)
  if (!read.ok) return refuse(event, 422, read.refusals)
  const { as, name } = asked.value
  const site = { ...read.value.site, about: { ...read.value.site.about, ...(as === 'copy' && name ? { name } : {}) } }
  const property = { ...read.value, site, id: as === 'copy' ? v7() : read.value.id.toLowerCase() }
  if (!(await storeProperty(database(), property)))
    return refuse(event, 409, [refusal('already_here', ['id'], { id: property.id })])
  setResponseStatus(event, 201)
  return { id: property.id }
})
