import { SCHEMA_VERSION, type Message } from '../../../core/record'
import { fetchProperty, fetchRevision, fetchSteps } from '../../lib/api'
import { keptFor, refusedFor, type Rejected } from '../../lib/outbox'
import { lineAfter, type PropertyState } from './state'

/** Reads a property with whatever of it waits on this device; `send` is called once it stands. */
export function loading(state: PropertyState, send: () => void) {
  const { held, outbox, rejected, status, troubles, line, ahead, outdated, unkept, viewed } = state
  /** The property that was asked for last: an answer that comes late, of another, is let go. */
  let wanted = ''

  async function load(id: string): Promise<void> {
    wanted = id
    if (held.value?.id !== id) clear()
    const [reply, [waiting, refused]] = await Promise.all([
      fetchProperty(id),
      Promise.all([keptFor(id), refusedFor(id)]).catch((): [Message[], Rejected[]] => {
        unkept.value = true
        return [[], []]
      }),
    ])
    if (wanted !== id) return
    line.value = lineAfter(reply)
    outdated.value ||= reply.kind === 'other_version'
    rejected.value = refused
    if (reply.kind === 'ok') {
      held.value = reply.value
      await lift(state, waiting)
      if (wanted !== id) return
      // What was written while this was being read is in none of the lists that came.
      const read = new Set(waiting.map((m) => m.id))
      outbox.value = [...waiting, ...outbox.value.filter((m) => !read.has(m.id))]
      status.value = 'ready'
      send()
    } else if (!held.value) {
      troubles.value = reply.kind === 'refused' ? reply.refusals : []
      status.value = reply.kind !== 'refused' ? 'unreachable' : reply.status === 422 ? 'unreadable' : 'missing'
    }
  }
  function clear(): void {
    held.value = null
    viewed.value = null
    outbox.value = []
    rejected.value = []
    ahead.value = []
    status.value = 'loading'
  }

  /** Adds the changes before the oldest one that is listed. */
  async function loadOlder(): Promise<void> {
    const oldest = held.value?.steps.at(-1)
    if (!held.value || !oldest) return
    const reply = await fetchSteps(held.value.id, oldest.revision)
    if (reply.kind === 'ok' && held.value)
      held.value = { ...held.value, steps: [...held.value.steps, ...reply.value.steps] }
  }

  /** Shows the record as it was at a revision; null comes back to now. Resolves false where it cannot be had. */
  async function view(revision: number | null): Promise<boolean> {
    if (revision === null || revision === held.value?.revision) {
      viewed.value = null
      return true
    }
    const reply = await fetchRevision(held.value!.id, revision)
    if (reply.kind === 'ok') viewed.value = reply.value
    return reply.kind === 'ok'
  }
  return { load, loadOlder, view }
}

/**
 * Finds how the present version would have written what an earlier one left behind. That is what is shown; sent it is
 * as it was kept, since one message may be several by now and is answered as one.
 */
export async function lift({ held, lifted }: PropertyState, messages: readonly Message[]): Promise<void> {
  const old = messages.filter((m) => m.schema !== SCHEMA_VERSION)
  if (old.length === 0) return
  try {
    const { liftMessage } = await import('../../../core/formats/upgrade')
    const beside = { site: held.value?.site ?? null, isHunt: () => false }
    for (const m of old) lifted.set(m.id, liftMessage(m, beside) as Message[])
  } catch {
    /* without a signal they are not shown yet; they wait, and the server knows the way too */
  }
}
