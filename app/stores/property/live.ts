import { computed, ref, shallowRef } from 'vue'
import { factKinds, kindOf, withFact, type Doing, type FactBody, type Facts, type Presence } from '../../../core/record'
import { putHere } from '../../lib/api'
import { authorName, deviceId } from '../../lib/device'
import { listenTo, type Heard } from '../../lib/live'
import type { PropertyState } from './state'

/** Somebody else at the property, and when they were last heard of. */
export interface Other extends Presence {
  readonly doing: Doing
  readonly at: string
}

/** How often one says that one is there; somebody who was not heard of for twice that may have no signal. */
const TELL_EVERY_ms = 20_000
export const SILENT_AFTER_ms = 50_000
/** Somebody who was silent for longer has gone home. */
const GONE_AFTER_ms = 30 * 60_000
/** What comes within this time is taken in together. */
const GATHER_ms = 60

const countOf = (facts: Facts): number =>
  factKinds.reduce((sum, kind) => sum + Object.keys(facts[kindOf(kind).collection]).length, 0)

/** What others write comes in as they write it, and everybody at the property knows of the others. */
export function living(
  { held, ahead, outbox, line }: PropertyState,
  doors: { load: (id: string) => Promise<void>; catchUp: (others: boolean) => Promise<void>; send: () => void },
) {
  const others = shallowRef<ReadonlyMap<string, Other>>(new Map())
  const clock = ref(Date.now())
  let doing: Doing = { tab: 'threads', job: null, box: null }
  let ended: (() => void) | null = null

  /** Facts that came are laid with the others; one whose owner is not here says that something was missed. */
  function take(facts: Extract<Heard, { kind: 'facts' }>['facts']): boolean {
    const now = held.value!
    const order = new Map(factKinds.map((kind, i) => [kind, i]))
    const sorted = [...facts].sort((a, b) => order.get(a.kind)! - order.get(b.kind)!)
    let all: Facts = now.facts
    for (const { kind, id, fact } of sorted) {
      const read = kindOf(kind).schema.safeParse(fact)
      const next = read.success ? withFact(all, id, { kind, fact: read.data } as FactBody) : null
      if (!next?.ok) return false
      all = next.value
    }
    if (all !== now.facts) held.value = { ...now, facts: all }
    return true
  }

  let gathered: Heard[] = []
  let gathering: ReturnType<typeof setTimeout> | undefined
  function hear(what: Heard): void {
    if (line.value === 'down') doors.send()
    gathered.push(what)
    gathering ??= setTimeout(() => void takeIn(), GATHER_ms)
  }
  async function takeIn(): Promise<void> {
    const all = gathered
    gathered = []
    gathering = undefined
    const now = held.value
    if (!now) return
    for (const what of all) if (what.kind === 'here') see(what.who, what.at)
    const isWhole = take(all.flatMap((what) => (what.kind === 'facts' ? what.facts : [])))
    const stands = all.flatMap((what) => (what.kind === 'stands' ? [what] : [])).at(-1)
    const isMissing = stands !== undefined && stands.facts > countOf(held.value!.facts)
    if (!isWhole || isMissing || all.some((what) => what.kind === 'large')) return doors.load(now.id)
    // One’s own change is on its way in by its reply; what others made of the site is fetched now.
    const own = new Set([...outbox.value, ...ahead.value.map((a) => a.message)].map((m) => m.id))
    const revisions = all.map((what) =>
      what.kind === 'stands' || (what.kind === 'revision' && !own.has(what.by)) ? what.revision : 0,
    )
    if (Math.max(...revisions) > held.value!.revision) await doors.catchUp(true)
  }

  function see(who: Presence, at: string): void {
    if (who.device === deviceId()) return
    const next = new Map(others.value)
    if (who.doing === null) next.delete(who.device)
    else next.set(who.device, { ...who, doing: who.doing, at })
    others.value = next
  }

  const tell = (what: Doing | null) => {
    const id = held.value?.id
    if (id && authorName() !== '')
      void putHere(id, { device: deviceId(), name: authorName(), doing: what }).catch(() => undefined)
  }
  /** Says what one has open, now and every few seconds. */
  function showDoing(what: Doing): void {
    const isNew = JSON.stringify(what) !== JSON.stringify(doing)
    doing = what
    if (isNew && ended) tell(doing)
  }

  /** Listens to the property that is held until the page goes on; the way to stop is the answer. */
  function listen(): () => void {
    ended?.()
    const { end } = listenTo(held.value!.id, hear)
    tell(doing)
    const beat = setInterval(() => {
      clock.value = Date.now()
      if (document.visibilityState === 'visible') tell(doing)
    }, TELL_EVERY_ms)
    const leave = () => tell(null)
    window.addEventListener('pagehide', leave)
    ended = () => {
      end()
      clearInterval(beat)
      clearTimeout(gathering)
      gathering = undefined
      gathered = []
      window.removeEventListener('pagehide', leave)
      leave()
      others.value = new Map()
      ended = null
    }
    return ended
  }

  const present = computed(() =>
    [...others.value.values()]
      .filter(({ at }) => clock.value - Date.parse(at) < GONE_AFTER_ms)
      .map((o) => ({ ...o, isSilent: clock.value - Date.parse(o.at) > SILENT_AFTER_ms }))
      .sort((a, b) => a.name.localeCompare(b.name)),
  )
  return { listen, showDoing, others: present }
}
