import { SCHEMA_VERSION, type Facts, type Message } from '../../../core/record'
import { watch } from 'vue'
import { fetchProperty, fetchRevision, fetchSteps, type Whole } from '../../lib/api'
import { forgetProperty, keepProperty, keptProperty } from '../../lib/kept-properties'
import { keptFor, refusedFor, type Rejected } from '../../lib/outbox'
import { lineAfter, type PropertyState } from './state'

/** Where nobody has answered by then, what this device keeps is shown meanwhile. */
const KNOWN_AFTER_ms = 2500
const KEEP_AFTER_ms = 1000
const later = (ms: number) => new Promise<null>((resolve) => setTimeout(() => resolve(null), ms))
/** False only where the device itself knows that it has no line. */
const hasSignal = () => typeof navigator === 'undefined' || navigator.onLine !== false

/** Facts only grow: what two lists have together. */
const together = (one: Facts, other: Facts): Facts =>
  Object.fromEntries(
    Object.entries(other).map(([collection, facts]) => [collection, { ...one[collection as keyof Facts], ...facts }]),
  ) as Facts

/** Reads a property with whatever of it waits on this device; `send` is called once it stands. */
export function loading(state: PropertyState, send: () => void) {
  const { held, outbox, rejected, status, troubles, line, ahead, outdated, unkept, viewed } = state
  /** The property that was asked for last: an answer that comes late, of another, is let go. */
  let wanted = ''

  async function load(id: string): Promise<void> {
    wanted = id
    if (held.value?.id !== id) clear()
    const asked = fetchProperty(id)
    const left = Promise.all([keptFor(id), refusedFor(id)]).catch((): [Message[], Rejected[]] => {
      unkept.value = true
      return [[], []]
    })
    const early = await Promise.race([asked, later(hasSignal() ? KNOWN_AFTER_ms : 0)])
    const [waiting, refused] = await left
    if (wanted !== id) return
    rejected.value = refused
    const isSilent = early === null || early.kind === 'unreachable' || early.kind === 'failed'
    const isFromHere = isSilent && !held.value && (await showKept(id, waiting))
    const reply = early ?? (await asked)
    if (wanted !== id) return
    line.value = lineAfter(reply)
    outdated.value ||= reply.kind === 'other_version'
    // Shown from the device meanwhile, some of what waited may have been sent by now.
    if (reply.kind === 'ok') await stand(id, reply.value, held.value ? await keptFor(id).catch(() => []) : waiting)
    else if (!held.value || (isFromHere && reply.kind === 'refused')) {
      // The server knows it no more: what was shown meanwhile is not the property as it is.
      if (held.value) clear()
      troubles.value = reply.kind === 'refused' ? reply.refusals : []
      status.value = reply.kind !== 'refused' ? 'unreachable' : reply.status === 422 ? 'unreadable' : 'missing'
      if (status.value === 'missing') forgetProperty(id).catch(() => undefined)
    }
  }

  /** What this device keeps of it, where it keeps it. */
  async function showKept(id: string, waiting: readonly Message[]): Promise<boolean> {
    const kept = await keptProperty(id).catch(() => null)
    if (!kept || wanted !== id || held.value) return false
    line.value = 'down'
    await stand(id, kept.whole, waiting)
    return true
  }

  /** Puts a property up with what waits of it; what has been seen of it since stays. */
  async function stand(id: string, whole: Whole, waiting: readonly Message[]): Promise<void> {
    const before = held.value?.id === id ? held.value : null
    if (before && before.revision > whole.revision) return
    held.value = before ? { ...whole, facts: together(before.facts, whole.facts) } : whole
    await lift(state, waiting)
    if (wanted !== id) return
    // What was written while this was being read is in none of the lists that came.
    const read = new Set(waiting.map((m) => m.id))
    outbox.value = [...waiting, ...outbox.value.filter((m) => !read.has(m.id))]
    status.value = 'ready'
    send()
  }

  /** What the server has is kept on this device a little after it came, so that it opens without a signal. */
  let keeping: ReturnType<typeof setTimeout> | undefined
  watch(held, (now) => {
    clearTimeout(keeping)
    if (now && line.value === 'up')
      keeping = setTimeout(() => void keepProperty(now).catch(() => undefined), KEEP_AFTER_ms)
  })

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
