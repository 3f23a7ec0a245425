import { defineStore } from 'pinia'
import { v7 } from 'uuid'
import { climateOf } from '../../core/circuit'
import { sceneOf, type Scene } from '../../core/expect'
import { pastOf, type PastByTest } from '../../core/history'
import { readingsOf, SCHEMA_VERSION, withFact, type Facts, type Message, type MessageBody } from '../../core/record'
import type { Refusal } from '../../core/refusal'
import { applyBatch, type Command, type Site } from '../../core/site'
import {
  fetchProperty,
  fetchRevision,
  fetchSteps,
  postMessages,
  type MessageReply,
  type Revision,
  type Whole,
} from '../lib/api'
import { authorName, deviceId } from '../lib/device'
import { keep, keptFor, letGo } from '../lib/outbox'

/** The most messages sent at once; the server takes 500. */
const BATCH = 100
const RETRY_ms = 3000

/** A message that the server will not take, with its reasons. */
export interface Rejected {
  readonly message: Message
  readonly refusals: readonly Refusal[]
}

/**
 * One property: what the server had, with what this device has still to send laid over it. A message goes to the
 * device's own database first, then to the server by its id; what the page calls saved, the server has confirmed.
 */
export const useProperty = defineStore('property', () => {
  const held = shallowRef<Whole | null>(null)
  const outbox = shallowRef<readonly Message[]>([])
  const rejected = shallowRef<readonly Rejected[]>([])
  const status = ref<'loading' | 'ready' | 'missing' | 'unreachable'>('loading')
  const reached = ref(true)
  /** The server is of another version than this page: what waits stays on the device until the page is reloaded. */
  const outdated = ref(false)
  /** This device would not keep a message (a private window, a full disk): until it is sent, only the open page has it. */
  const unkept = ref(false)
  let sending = false
  let retry: ReturnType<typeof setTimeout> | undefined

  /** An earlier state of the record that is looked at; nothing can be changed meanwhile. */
  const viewed = shallowRef<Revision | null>(null)
  const present = computed((): Site | null => (held.value ? siteWith(held.value.site, outbox.value) : null))
  const site = computed((): Site | null => viewed.value?.site ?? present.value)
  const facts = computed((): Facts | null => (held.value ? factsWith(held.value.facts, outbox.value) : null))
  /** Messages on their way into this device's own database: not safe yet, so not called saved either. */
  const keeping = ref(0)
  const pending = computed(() => outbox.value.length + keeping.value)

  const pasts = new Map<string | null, { key: string; past: PastByTest }>()

  /** Loads a property and whatever of it waits on this device. */
  async function load(id: string): Promise<void> {
    if (held.value?.id !== id) {
      held.value = null
      viewed.value = null
      pasts.clear()
      outbox.value = []
      rejected.value = []
      status.value = 'loading'
    }
    const [reply, kept] = await Promise.all([
      fetchProperty(id),
      keptFor(id).catch(() => {
        unkept.value = true
        return []
      }),
    ])
    reached.value = reply.kind !== 'unreachable'
    if (reply.kind === 'ok') {
      held.value = reply.value
      outbox.value = kept
      status.value = 'ready'
      void send()
    } else if (!held.value) status.value = reply.kind === 'refused' ? 'missing' : 'unreachable'
  }

  /** Keeps a message on this device, shows it, and sends it. Resolves with its id once it is kept. */
  async function record(body: MessageBody): Promise<string> {
    if (!held.value) throw new Error('record: no property is loaded')
    const message: Message = {
      id: v7(),
      schema: SCHEMA_VERSION,
      property: held.value.id,
      author: authorName(),
      device: deviceId(),
      at: new Date().toISOString(),
      body,
    }
    keeping.value++
    await keep(message).catch(() => {
      unkept.value = true
    })
    keeping.value--
    outbox.value = [...outbox.value, message]
    void send()
    return message.id
  }

  const change = async (commands: readonly Command[]): Promise<string | null> =>
    viewed.value
      ? null
      : record({
          kind: 'batch',
          base: held.value!.revision,
          commands: [...commands],
          onTopOf: outbox.value.filter((m) => m.body.kind === 'batch' || m.body.kind === 'undo').map((m) => m.id),
        })

  /** Sends what waits, in order, until all is sent or nobody answers; then tries again by itself. */
  async function send(): Promise<void> {
    if (sending || !held.value || outdated.value) return
    sending = true
    clearTimeout(retry)
    try {
      while (outbox.value.length > 0 && held.value) {
        const messages = outbox.value.slice(0, BATCH)
        const reply = await postMessages(held.value.id, messages)
        reached.value = reply.kind !== 'unreachable'
        if (reply.kind === 'unreachable') break
        if (isOutdated(reply)) {
          outdated.value = true
          break
        }
        const replies =
          reply.kind === 'ok'
            ? reply.value.replies
            : messages.map((m): MessageReply => ({ id: m.id, status: 'refused', refusals: reply.refusals }))
        await settle(messages, replies)
      }
    } finally {
      sending = false
      if (outbox.value.length > 0 && !outdated.value) retry = setTimeout(() => void send(), RETRY_ms)
    }
  }

  /** Moves answered messages out of the outbox: taken ones into what the server has, refused ones to be shown. */
  async function settle(messages: readonly Message[], replies: readonly MessageReply[]): Promise<void> {
    const answered = messages.slice(0, replies.length)
    await letGo(answered.map((m) => m.id)).catch(() => {
      unkept.value = true
    })
    let reload = false
    for (const [i, message] of answered.entries()) {
      const reply = replies[i]!
      if (reply.status === 'refused') {
        rejected.value = [...rejected.value, { message, refusals: reply.refusals }]
        reload = true
      } else if (message.body.kind === 'batch' || message.body.kind === 'undo') {
        // Shown as taken at once; the journal's own account of it follows when the server answers again.
        held.value = {
          ...held.value!,
          site: siteWith(held.value!.site, [message]),
          revision: reply.revision ?? held.value!.revision,
        }
        reload = true
      } else held.value = { ...held.value!, facts: factsWith(held.value!.facts, [message]) }
    }
    if (reload) {
      const fresh = await fetchProperty(held.value!.id)
      if (fresh.kind === 'ok') held.value = fresh.value
    }
    const done = new Set(answered.map((m) => m.id))
    outbox.value = outbox.value.filter((m) => !done.has(m.id))
  }

  const dismiss = (id: string) => {
    rejected.value = rejected.value.filter((r) => r.message.id !== id)
  }

  /** The last change made from this device that still stands and is no undo itself, or null. */
  const undoable = computed(() => {
    const steps = held.value?.steps ?? []
    const takenBack = new Set(steps.map((s) => s.undoes))
    return steps.find((s) => s.device === deviceId() && s.undoes === null && !takenBack.has(s.id)) ?? null
  })
  const undo = async () => {
    if (undoable.value) await record({ kind: 'undo', undoes: undoable.value.id })
  }

  /** The site at a visit's temperatures, kept while neither changes. */
  const scenes = new Map<string, { site: Site; scene: Scene }>()
  function sceneAt(ground_C: number | null, coil_C: number | null = null): Scene {
    const now = site.value!
    const climate = ground_C === null ? climateOf(now) : climateOf(now, ground_C, coil_C)
    const key = `${climate.ground_C} ${climate.coil_C}`
    const known = scenes.get(key)
    if (known?.site === now) return known.scene
    const scene = sceneOf(now, climate)
    scenes.set(key, { site: now, scene })
    return scene
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

  /**
   * Readings of the visits before one, or of all. Facts only ever grow, so their numbers tell whether anything has come in
   * that matters here; readings of the visit itself do not, and the answer stays the same object while they come.
   */
  function pastBefore(visit: string | null): PastByTest {
    const now = facts.value!
    const others = Object.keys(now.readings).length - (visit === null ? 0 : readingsOf(now, visit).length)
    const key = [others, now.visits, now.strikeOuts, now.acceptances]
      .map((x) => (typeof x === 'number' ? x : Object.keys(x).length))
      .join(' ')
    const known = pasts.get(visit)
    if (known?.key === key) return known.past
    const past = pastOf(now, visit)
    pasts.set(visit, { key, past })
    return past
  }

  if (typeof window !== 'undefined') window.addEventListener('online', () => void send())
  return {
    held,
    site,
    facts,
    pending,
    rejected,
    status,
    reached,
    outdated,
    unkept,
    undoable,
    load,
    record,
    change,
    send,
    dismiss,
    undo,
    sceneAt,
    pastBefore,
    viewed,
    view,
    loadOlder,
  }
})

const isOutdated = (reply: Awaited<ReturnType<typeof postMessages>>) =>
  reply.kind === 'ok' &&
  reply.value.replies.some((r) => r.status === 'refused' && r.refusals.some((f) => f.code === 'newer_client'))

function factsWith(facts: Facts, messages: readonly Message[]): Facts {
  return messages.reduce((now, m) => {
    if (m.body.kind === 'batch' || m.body.kind === 'undo') return now
    const next = withFact(now, m.id, m.body)
    return next.ok ? next.value : now
  }, facts)
}

/** The site with what waits applied; a batch that does not fit any more is left to the server's answer. */
function siteWith(site: Site, messages: readonly Message[]): Site {
  return messages.reduce((now, m) => {
    const applied = m.body.kind === 'batch' ? applyBatch(now, m.body.commands) : null
    return applied?.ok ? applied.value.site : now
  }, site)
}
