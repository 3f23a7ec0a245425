import { computed, ref, shallowRef } from 'vue'
import type { Facts, Message } from '../../../core/record'
import type { Refusal } from '../../../core/refusal'
import type { Site } from '../../../core/site'
import type { Revision, Whole } from '../../lib/api'
import { deviceId } from '../../lib/device'
import type { Rejected } from '../../lib/outbox'
import { factsWith, siteWith } from './applied'

/** What the store of a property holds, and what follows from it. */
export function propertyState() {
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
  /** This device would not keep a message (a private window, a full disk): until it is sent, only the page has it. */
  const unkept = ref(false)
  /** Messages on their way into this device's own database: not safe yet, so called neither kept nor being sent. */
  const keeping = ref(0)
  /** An earlier state of the record that is looked at; nothing can be changed meanwhile. */
  const viewed = shallowRef<Revision | null>(null)
  /** What an earlier version of this page left behind, by id, as the present one would have written it. */
  const lifted = new Map<string, readonly Message[]>()
  const asShown = (messages: readonly Message[]) => messages.flatMap((m) => lifted.get(m.id) ?? [m])

  const present = computed((): Site | null =>
    held.value ? siteWith(held.value.site, [...ahead.value.map((a) => a.message), ...outbox.value]) : null,
  )
  const site = computed((): Site | null => viewed.value?.site ?? present.value)
  const facts = computed((): Facts | null => (held.value ? factsWith(held.value.facts, asShown(outbox.value)) : null))
  const pending = computed(() => outbox.value.length + keeping.value)
  /** The last change made from this device that still stands and is no undo itself, or null. */
  const undoable = computed(() => {
    const steps = held.value?.steps ?? []
    const takenBack = new Set(steps.map((s) => s.undoes))
    return steps.find((s) => s.device === deviceId() && s.undoes === null && !takenBack.has(s.id)) ?? null
  })
  return {
    held,
    outbox,
    rejected,
    status,
    troubles,
    line,
    ahead,
    outdated,
    unkept,
    keeping,
    viewed,
    lifted,
    asShown,
    site,
    facts,
    pending,
    undoable,
  }
}
export type PropertyState = ReturnType<typeof propertyState>

/** What a reply says of the line. */
export const lineAfter = ({ kind }: { readonly kind: string }): 'up' | 'down' | 'failing' =>
  kind === 'unreachable' ? 'down' : kind === 'failed' ? 'failing' : 'up'
