import { setResponseStatus } from 'h3'
import * as z from 'zod'
import { actorOf } from '../../../utils/actor'
import { attendSoon } from '../../../utils/attend'
import { database } from '../../../utils/database'
import { receiveAll, type MessageReply } from '../../../utils/receive'
import { refuse } from '../../../utils/reply'
import { propertyParam, readBodyAs, route } from '../../../utils/route'

const body = z.strictObject({ messages: z.array(z.unknown()).min(1).max(500) })

/** The outbox's door. Messages are taken in order, each by itself; each that is come to gets its reply. */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  const sent = await readBodyAs(event, body)
  if (!sent.ok) return refuse(event, sent.status, sent.refusals)
  const replies = await receiveAll(database(), actorOf(event), id.value, sent.value.messages)
  attendSoon(database(), actorOf(event))
  setResponseStatus(event, statusOf(replies))
  return { replies }
})

/** 200 where anything was taken; else what stood in the way of all. */
function statusOf(replies: readonly MessageReply[]): number {
  const refusals = replies.flatMap((r) => (r.status === 'refused' ? [r.refusals.map((f) => f.code)] : []))
  if (refusals.length < replies.length) return 200
  if (refusals.every((codes) => codes.includes('no_such_property'))) return 404
  const differs = ['conflict', 'changed_since', 'id_taken', 'newer_client', 'too_far_behind']
  return refusals.some((codes) => codes.some((c) => differs.includes(c))) ? 409 : 422
}
