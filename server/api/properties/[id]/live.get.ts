import { createEventStream, getRequestHeader } from 'h3'
import type { News } from '../../../../core/record'
import { refusal } from '../../../../core/refusal'
import { actingAs } from '../../../db/actor'
import { standingOf } from '../../../db/notices'
import { actorOf } from '../../../utils/actor'
import { database } from '../../../utils/database'
import { live } from '../../../utils/live'
import { refuse } from '../../../utils/reply'
import { propertyParam, route } from '../../../utils/route'

/** A line that says nothing for longer is dead to whoever listens. */
const SIGN_OF_LIFE_ms = 15_000
const MOST_LISTENERS = 1000
let listening = 0

/**
 * What comes to a property as it comes, as server-sent events: first how it stands, so that whoever was away sees what
 * they have missed, then who is there, then every fact, change and person.
 */
export default route(async (event) => {
  const id = propertyParam(event)
  if (!id.ok) return refuse(event, 400, id.refusals)
  if (!/text\/event-stream/.test(getRequestHeader(event, 'accept') ?? ''))
    return refuse(event, 406, [refusal('live_only', ['accept'])])
  if (listening >= MOST_LISTENERS) return refuse(event, 503, [refusal('too_many_listen')])
  const actor = actorOf(event)
  const known = await actingAs(database(), actor, (within) => standingOf(within, id.value))
  if (!known) return refuse(event, 404, [refusal('no_such_property')])
  const stream = createEventStream(event)
  const push = (what: unknown) => void stream.push(JSON.stringify(what)).catch(() => undefined)
  const stands = async () => {
    const now = await actingAs(database(), actor, (within) => standingOf(within, id.value)).catch(() => null)
    if (now) push({ kind: 'stands', ...now })
  }
  const { here, leave } = await live().listen(actor.company, id.value, (news: News | null) =>
    news ? push(news) : void stands(),
  )
  listening++
  const sign = setInterval(() => push({ kind: 'still' }), SIGN_OF_LIFE_ms)
  stream.onClosed(async () => {
    listening--
    clearInterval(sign)
    leave()
    await stream.close()
  })
  await stands()
  for (const { who, at } of here) push({ kind: 'here', who, at })
  return stream.send()
})
