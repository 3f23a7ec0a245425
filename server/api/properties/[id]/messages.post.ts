import { setResponseStatus } from 'h3'
import * as z from 'zod'
import { database } from '../../../utils/database'
import { receive, type MessageReply } from '../../../utils/receive'
import { refuse } from '../../../utils/reply'
import { propertyParam, readBodyAs, route } from '../../../utils/route'

const body = z.strictObject({ messages: z.array(z.unknown()).min(1).max(500) })

/** The outbox's door. Messages are taken in order, each by itself; each gets its reply. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const sent = await readBodyAs(event, body)
  if (!sent.ok) return refuse(event, sent.status, sent.refusals)
  const replies: MessageReply[] = []
  for (const raw of sent.value.messages) replies.push(await receive(database(), id.value, raw))
  setResponseStatus(event, statusOf(replies))
  return { replies }
})

/** 200 where anything was taken; else what stood in the way of all. */
function statusOf(replies: readonly MessageReply[]): number {
  const refusals = replies.flatMap((r) => (r.status === 'refused' ? [r.refusals.map((f) => f.code)] : []))
  if (refusals.length < replies.length) return 200
  if (refusals.every((codes) => codes.includes('no_such_property'))) return 404
  if (
    refusals.some((codes) => codes.some((c) => ['conflict', 'changed_since', 'id_taken', 'newer_client'].includes(c)))
  )
    return 409
  return 422
}
