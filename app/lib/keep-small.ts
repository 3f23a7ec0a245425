import { fetchProperty, type Listed } from './api'
import { keepProperty, keptProperties } from './kept-properties'

/** A property of so many stations is kept without being asked for. */
export const SMALL_STATIONS = 60
/** So many are fetched for keeping at one look at the list. */
const AT_ONCE = 20

/** Keeps the small properties of a list, and those that are pinned, as the server has them now. */
export async function keepSmall(listed: readonly Listed[]): Promise<void> {
  const kept = new Map((await keptProperties()).map((k) => [k.id, k]))
  const wanted = listed.filter((p) => {
    const here = kept.get(p.id)
    const asThere = here?.revision === p.revision && here.visits === p.visits && here.lastVisit === p.lastVisit
    return !p.archived && (p.stations <= SMALL_STATIONS || here?.pinned === true) && !asThere
  })
  for (const { id } of wanted.slice(0, AT_ONCE)) {
    const reply = await fetchProperty(id)
    if (reply.kind !== 'ok') return
    await keepProperty(reply.value)
  }
}
