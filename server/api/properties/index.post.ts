import { getQuery, getRequestHeader, setResponseStatus } from 'h3'
import { v7 } from 'uuid'
import * as z from 'zod'
import { MOST_FILE_BYTES } from '../../../core/formats'
import { uuid } from '../../../core/record'
import { parseWith, refusal } from '../../../core/refusal'
import { propertyName } from '../../../core/site'
import { actorOf } from '../../utils/actor'
import { attendSoon } from '../../utils/attend'
import { database } from '../../utils/database'
import { takeIn } from '../../utils/intake'
import { refuse } from '../../utils/reply'
import { route } from '../../utils/route'
import { spool } from '../../utils/spool'

/** `as=copy` gives the property an id and a name of its own; `token` is what progress is asked for by. */
const query = z.strictObject({
  as: z.enum(['itself', 'copy']).default('itself'),
  name: propertyName.optional(),
  token: uuid.optional(),
})
const CONTENT = /^application\/(json|zip)\b/i

/** Takes a property file in, or a zip of one with its pictures: whole or not at all, whatever its size. */
export default route(async (event) => {
  const asked = parseWith(query, getQuery(event), ['query'])
  if (!asked.ok) return refuse(event, 400, asked.refusals)
  const content = CONTENT.exec(getRequestHeader(event, 'content-type') ?? '')?.[1]?.toLowerCase()
  if (content === undefined) return refuse(event, 415, [refusal('file_only')])
  const tooLarge = refusal('file_too_large', [], { limit: MOST_FILE_BYTES / 1e6 })
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > MOST_FILE_BYTES) return refuse(event, 413, [tooLarge])
  const spooled = await spool(event.node.req as AsyncIterable<Uint8Array>, content === 'zip')
  if (!spooled.ok) return refuse(event, spooled.refusals[0]!.code === tooLarge.code ? 413 : 422, spooled.refusals)
  const { as, name = null, token = null } = asked.value
  try {
    const taken = await takeIn(database(), actorOf(event), spooled.value, {
      copy: as === 'copy' ? { id: v7(), name } : null,
      token,
      isGone: () => event.node.res.destroyed,
    })
    if (!taken.ok) return refuse(event, taken.refusals[0]?.code === 'already_here' ? 409 : 422, taken.refusals)
    attendSoon(database(), actorOf(event))
    setResponseStatus(event, 201)
    return { id: taken.value }
  } finally {
    await spooled.value.remove()
  }
})
