import { defineStore } from 'pinia'
import { v7 } from 'uuid'
import { computed, ref, shallowRef } from 'vue'
import { climateOf } from '../../core/circuit'
import { sceneOf, type Scene } from '../../core/expect'
import { pastOf, type PastByTest } from '../../core/history'
import { readingsOf, SCHEMA_VERSION, withFact, type Facts, type Message, type MessageBody } from '../../core/record'
import type { Refusal } from '../../core/refusal'
import { applyBatch, type Command, type Site } from '../../core/site'
import {
  fetchMissed,
  fetchProperty,
  fetchRevision,
  fetchSteps,
  postMessages,
  type Revision,
  type Step,
  type Whole,
} from '../lib/api'
import { authorName, deviceId } from '../lib/device'
import { keep, keptFor, refusedFor, settleKept, settleRefused, type Rejected } from '../lib/outbox'
import { retryAfter_ms, settled } from '../lib/sending'

/** The most messages sent at once; the server takes 500. */
const BATCH = 100

/**
 * One property: what the server had, with what this device has still to send laid over it. A message goes to the
 * device's own database first, then to the server by its id; what the page calls saved, the server has confirmed.
 */
export const useProperty = defineStore('property', () => {
  const held = shallowRef<Whole | null>(null)
  const outbox = shallowRef<readonly Message[]>([])
  const rejected = shallowRef<readonly Rejected[]>([])
  const status = ref<'loading' | 'ready' | 'missing' | 'unreachable' | 'unreadable'>('loading')
  /** Why the property cannot be shown, where the server has said so. */
  const troubles = shallowRef<readonly Refusal[]>([])
  /** Whether somebody answers; `failing` is one who answers, but not to what was sent. */
  const line = ref<'up' | 'down' | 'failing'>('up')
  /** Changes that the server has, and that are still laid over the site: the steps they made are not here yet. */
  const ahead = shallowRef<readonly { readonly message: Message; readonly revision: number }[]>([])
  /** The server is of another version than this page: what waits stays on the device until the page is reloaded. */
  const outdated = ref(false)
  /**
   * This device would not keep a message (a private window, a full disk): until it is sent, only the open page has
   * it.
   */
  const unkept = ref(false)
  let sending = false
  let triesInVain = 0
  let retry: ReturnType<typeof setTimeout> | undefined

  /** An earlier state of the record that is looked at; nothing can be changed meanwhile. */
  const viewed = shallowRef<Revision | null>(null)
  const present = computed((): Site | null =>
    held.value ? siteWith(held.value.site, [...ahead.value.map((a) => a.message), ...outbox.value]) : null,
  )
  const site = computed((): Site | null => viewed.value?.site ?? present.value)
  const facts = computed((): Facts | null => (held.value ? factsWith(held.value.facts, asShown(outbox.value)) : null))
  /** Messages on their way into this device's own database: not safe yet, so called neither kept nor being sent. */
  const keeping = ref(0)
  const pending = computed(() => outbox.value.length + keeping.value)

  const pasts = new Map<string | null, { key: string; past: PastByTest }>()

  /** The property that was asked for last: an answer that comes late, of another, is let go. */
  let wanted = ''

  /** Loads a property and whatever of it waits on this device. */
  async function load(id: string): Promise<void> {
    wanted = id
    if (held.value?.id !== id) {
      held.value = null
      viewed.value = null
      pasts.clear()
      outbox.value = []
      rejected.value = []
      ahead.value = []
      status.value = 'loading'
    }
    const [reply, [waiting, refused]] = await Promise.all([
      fetchProperty(id),
      Promise.all([keptFor(id), refusedFor(id)]).catch((): [Message[], Rejected[]] => {
        unkept.value = true
        return [[], []]
      }),
    ])
    if (wanted !== id) return
    line.value = reply.kind === 'unreachable' ? 'down' : reply.kind === 'failed' ? 'failing' : 'up'
    outdated.value ||= reply.kind === 'other_version'
    rejected.value = refused
    if (reply.kind === 'ok') {
      held.value = reply.value
      await lift(waiting)
      if (wanted !== id) return
      // What was written while this was being read is in none of the lists that came.
      const read = new Set(waiting.map((m) => m.id))
      outbox.value = [...waiting, ...outbox.value.filter((m) => !read.has(m.id))]
      status.value = 'ready'
      void send()
    } else if (!held.value) {
      troubles.value = reply.kind === 'refused' ? reply.refusals : []
      status.value = reply.kind !== 'refused' ? 'unreachable' : reply.status === 422 ? 'unreadable' : 'missing'
    }
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
          onTopOf: [...ahead.value.map((a) => a.message), ...outbox.value.filter(isChange)].map((m) => m.id),
        })

  /** Sends what waits, in order, until all is sent or nobody answers; then tries again by itself. */
  async function send(): Promise<void> {
    if (sending || !held.value || outdated.value) return
    sending = true
    clearTimeout(retry)
    let atOnce = BATCH
    try {
      while (outbox.value.length > 0 && held.value) {
        const id: string = held.value.id
        const messages = outbox.value.slice(0, atOnce)
        const reply = await postMessages(id, messages)
        if (held.value?.id !== id) break // another property was opened; what waits of this one is on the device
        line.value = reply.kind === 'unreachable' ? 'down' : reply.kind === 'failed' ? 'failing' : 'up'
        const { taken, refused, then } = settled(messages, reply)
        if (taken.length + refused.length > 0) await settle(taken, refused)
        if (then === 'later' && line.value === 'up') line.value = 'failing'
        if (then === 'reload') outdated.value = true
        if (then === 'fewer') atOnce = Math.max(1, messages.length >> 1)
        else if (then !== 'go_on') break
        else triesInVain = 0
      }
    } finally {
      sending = false
      if (outbox.value.length > 0 && !outdated.value)
        retry = setTimeout(() => void send(), retryAfter_ms(triesInVain++))
    }
  }

  /** Moves answered messages out of the outbox: taken ones into what the server has, refused ones to be shown. */
  async function settle(
    taken: readonly { readonly message: Message; readonly revision: number | null }[],
    refused: readonly Rejected[],
  ): Promise<void> {
    const id = held.value!.id
    const messages = taken.map((t) => t.message)
    await settleKept(messages, refused).catch(() => {
      unkept.value = true
    })
    if (held.value?.id !== id) return // another property was opened; this one is read anew when it is opened again
    held.value = { ...held.value, facts: factsWith(held.value.facts, asShown(messages)) }
    ahead.value = [
      ...ahead.value,
      ...taken.flatMap(({ message, revision }) =>
        revision !== null && revision > held.value!.revision ? [{ message, revision }] : [],
      ),
    ]
    rejected.value = [...rejected.value, ...refused]
    const done = new Set([...messages, ...refused.map((r) => r.message)].map((m) => m.id))
    outbox.value = outbox.value.filter((m) => !done.has(m.id))
    await catchUp(refused.some((r) => isChange(r.message)))
  }

  /**
   * Brings the site to where the server has it: by its own changes where they follow right after what is at hand, else
   * by the steps that were missed. `others` asks for those too where nothing of one's own is ahead.
   */
  async function catchUp(others: boolean): Promise<void> {
    const id: string = held.value!.id
    for (const { message, revision } of ahead.value) {
      const next = revision === held.value!.revision + 1 ? ownStep(held.value!.site, message, revision) : null
      if (!next) break
      held.value = { ...held.value!, site: next.site, revision, steps: [next.step, ...held.value!.steps] }
    }
    for (;;) {
      ahead.value = ahead.value.filter((a) => a.revision > held.value!.revision)
      if (ahead.value.length === 0 && !others) return
      const missed = await fetchMissed(id, held.value!.revision)
      if (held.value?.id !== id || missed.kind !== 'ok' || missed.value.steps.length === 0) return
      for (const { commands, ...step } of missed.value.steps) {
        const applied = applyBatch(held.value.site, commands)
        if (!applied.ok) return load(id)
        const steps: Step[] = [step, ...held.value.steps]
        held.value = { ...held.value, site: applied.value.site, revision: step.revision, steps }
      }
    }
  }

  /** Lets go of what was refused: a person has seen it. */
  async function dismiss(id: string): Promise<void> {
    await settleFor(id, false)
  }
  /** Sends what was refused once more. */
  async function sendAgain(id: string): Promise<void> {
    const message = await settleFor(id, true)
    if (message) {
      await lift([message])
      outbox.value = [...outbox.value, message]
    }
    void send()
  }
  async function settleFor(id: string, again: boolean): Promise<Message | null> {
    const found = rejected.value.find((r) => r.message.id === id)
    if (!found) return null
    // A change that is sent again is meant for the site as it is seen now.
    const message = again && held.value ? anew(found.message, held.value.revision) : found.message
    await settleRefused(message, again).catch(() => {
      unkept.value = true
    })
    rejected.value = rejected.value.filter((r) => r !== found)
    return message
  }

  /**
   * What an earlier version of this page left behind, by id, as the present one would have written it. That is what is
   * shown; sent it is as it was kept, since one message may be several by now and is answered as one.
   */
  const lifted = new Map<string, readonly Message[]>()
  const asShown = (messages: readonly Message[]) => messages.flatMap((m) => lifted.get(m.id) ?? [m])
  async function lift(messages: readonly Message[]): Promise<void> {
    const old = messages.filter((m) => m.schema !== SCHEMA_VERSION)
    if (old.length === 0) return
    try {
      const { liftMessage } = await import('../../core/formats/upgrade')
      const beside = { site: held.value?.site ?? null, isHunt: () => false }
      for (const m of old) lifted.set(m.id, liftMessage(m, beside) as Message[])
    } catch {
      /* without a signal they are not shown yet; they wait, and the server knows the way too */
    }
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

  /** The site at a job's temperatures, kept while neither changes. */
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
   * Readings of the jobs before one, or of all. Facts only ever grow, so their numbers tell whether anything has come
   * in that matters here; readings of the job itself do not, and the answer stays the same object while they come.
   */
  function pastBefore(job: string | null): PastByTest {
    const now = facts.value!
    const others = Object.keys(now.readings).length - (job === null ? 0 : readingsOf(now, job).length)
    const key = [others, now.jobs, now.strikeOuts, now.acceptances]
      .map((x) => (typeof x === 'number' ? x : Object.keys(x).length))
      .join(' ')
    const known = pasts.get(job)
    if (known?.key === key) return known.past
    const past = pastOf(now, job)
    pasts.set(job, { key, past })
    return past
  }

  if (typeof window !== 'undefined') {
    window.addEventListener('online', () => void send())
    document.addEventListener('visibilitychange', () => document.visibilityState === 'visible' && void send())
  }
  return {
    held,
    site,
    facts,
    keeping,
    pending,
    rejected,
    status,
    line,
    troubles,
    outdated,
    unkept,
    undoable,
    load,
    record,
    change,
    send,
    dismiss,
    sendAgain,
    undo,
    sceneAt,
    pastBefore,
    viewed,
    view,
    loadOlder,
  }
})

const isChange = ({ body }: Message) => body.kind === 'batch' || body.kind === 'undo'

const anew = (message: Message, base: number): Message =>
  message.body.kind === 'batch' ? { ...message, body: { ...message.body, base, onTopOf: [] } } : message

/** The step that one's own batch made, where it follows right after the site at hand. */
function ownStep(site: Site, message: Message, revision: number): { site: Site; step: Step } | null {
  if (message.body.kind !== 'batch') return null
  const applied = applyBatch(site, message.body.commands)
  if (!applied.ok) return null
  const { id, author, device, at } = message
  return {
    site: applied.value.site,
    step: { id, revision, author, device, at, undoes: null, writes: [...applied.value.writes] },
  }
}

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
