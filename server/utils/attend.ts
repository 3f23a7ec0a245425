import { attentionOf, threadsOn, wordsOf } from '../../core/attention'
import { livesOf, together } from '../../core/failures'
import { actingAs, type Actor } from '../db/actor'
import { keepAttention, nextWanted, type FoundAttention } from '../db/attention'
import { isDatabaseDown, type Database } from '../db/database'
import { readFacts } from '../db/facts'
import { partsJournal } from '../db/part-lives'
import { presentSite } from '../db/sites'

/** People write several things one after the other; what they ask for is worked out when they pause. */
const QUIET_s = 3

/** How long a database that was away is given before it is asked again. */
const AGAIN_s = 20

/** Companies that are being looked after, and those that wrote something meanwhile. */
const busy = new Map<string, { again: boolean }>()

/** Works out, beside everything else, what asks for somebody at the properties that changed. */
export function attendSoon(db: Database, actor: Actor): void {
  const under = busy.get(actor.company)
  if (under) {
    under.again = true
    return
  }
  const state = { again: false }
  busy.set(actor.company, state)
  const work = async () => {
    do {
      state.again = false
      await new Promise((resolve) => setTimeout(resolve, QUIET_s * 1000).unref())
      let done = await attendNext(db, actor, QUIET_s)
      while (done === 'done') done = await attendNext(db, actor, QUIET_s)
      if (done === 'later') state.again = true
    } while (state.again)
  }
  work()
    .catch((error: unknown) => {
      // It is noted still, and worked out with whatever comes next.
      if (isDatabaseDown(error)) setTimeout(() => attendSoon(db, actor), AGAIN_s * 1000).unref()
      else console.error(error)
    })
    .finally(() => busy.delete(actor.company))
}

/** One property that waits, if any is quiet. What cannot be worked out keeps what was known of it. */
export async function attendNext(db: Database, actor: Actor, quiet_s: number): Promise<'done' | 'later' | 'nothing'> {
  const wanted = await actingAs(db, actor, (within) => nextWanted(within, quiet_s))
  if (wanted === null || wanted === 'later') return wanted ?? 'nothing'
  const keep = (found: FoundAttention | null) => actingAs(db, actor, (within) => keepAttention(within, wanted, found))
  try {
    await keep(await foundAt(db, actor, wanted.property))
  } catch (error) {
    if (isDatabaseDown(error)) throw error
    // Deleted meanwhile, or nothing that can be worked out: it holds up nobody else.
    console.error(error)
    await keep(null)
  }
  return 'done'
}

/**
 * What asks for somebody at a property, the words it is found by and how long its parts lived; null where its
 * record cannot be read.
 */
async function foundAt(db: Database, actor: Actor, property: string): Promise<FoundAttention | null> {
  const [present, facts, { began, journal }] = await actingAs(
    db,
    actor,
    async (within) =>
      [
        await presentSite(within, property),
        await readFacts(within, property),
        await partsJournal(within, property),
      ] as const,
    'repeatable read',
  )
  if (!present?.ok) return null
  const { site } = present.value
  const looking = threadsOn(site, facts)
  let next = looking.next()
  while (!next.done) {
    // Whoever asks for something else is answered between two threads.
    await new Promise(setImmediate)
    next = looking.next()
  }
  return {
    attention: attentionOf(site, facts, next.value),
    words: wordsOf(site, facts),
    origin: site.about.origin,
    lives: together(livesOf(site, facts, journal, began)),
  }
}
