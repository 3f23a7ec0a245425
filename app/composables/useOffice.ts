import { useI18n } from 'vue-i18n'
import { looking as lookingSchema, type Looking } from '../../core/company'
import { officeEn } from '../../words/office-en'
import { fetchProperties, LIST_WINDOW, type Listed } from '../lib/api'
import { keepSmall } from '../lib/keep-small'
import { keptProperties } from '../lib/kept-properties'
import { countsWaiting } from '../lib/outbox'
import { today } from '../lib/today'
import { useSpeaker } from './useSpeaker'

let taken = false
/** A few letters are typed before the list is asked for anew. */
const PAUSE_ms = 200

/** A row of the list that has not come yet. */
export interface Gap {
  readonly id: string
  readonly gap: true
}
export type Row = Listed | Gap

const NOTHING_ASKED = {
  astray: 0,
  faults: 0,
  findings: 0,
  creeping: 0,
  creepsOn: null,
  temporary: 0,
  temporaryUntil: null,
  quotes: 0,
  quotedOn: null,
  visitDue: null,
  latitude_deg: null,
  longitude_deg: null,
} as const

/** The list of properties as it is looked at: its rows as they come, a window at a time, and what asks for somebody. */
export function useOffice() {
  const { mergeLocaleMessage } = useI18n({ useScope: 'global' })
  if (!taken) mergeLocaleMessage('en', officeEn)
  taken = true
  const { t, speaker } = useSpeaker(() => ({ length: 'm', temperature: 'C' }))
  const [route, router] = [useRoute(), useRouter()]

  /** The address holds how the list is looked at, so that the way back leads to it. */
  const looking = computed((): Looking => {
    const { find, need, sort, down } = route.query
    const asked = { find: find ?? '', need: need ?? null, sort: sort ?? 'name', down: down === 'yes' }
    const read = lookingSchema.safeParse(asked)
    return read.success ? read.data : lookingSchema.parse({})
  })
  const look = (now: Looking): void => {
    const { find, need, sort, down } = now
    void router.replace({
      query: {
        ...(find === '' ? {} : { find }),
        ...(need === null ? {} : { need }),
        ...(sort === 'name' ? {} : { sort }),
        ...(down ? { down: 'yes' } : {}),
        ...(asMap.value ? { as: 'map' } : {}),
      },
    })
  }
  const asMap = computed(() => route.query.as === 'map')
  const show = (map: boolean) => void router.replace({ query: { ...route.query, as: map ? 'map' : undefined } })
  const archived = ref(false)
  const rows = shallowRef<readonly Row[] | null>(null)
  const needs = shallowRef<Readonly<Record<string, number>>>({})
  const unreachable = ref(false)
  const kept = ref(false)
  const unsent = shallowRef<ReadonlyMap<string, number>>(new Map())

  let asked = 0
  const under = new Set<number>()
  /** Loads the list anew, from its beginning. */
  async function load(): Promise<void> {
    const mine = ++asked
    under.clear()
    const reply = await fetchProperties(looking.value, archived.value, 0, today())
    if (mine !== asked) return
    unreachable.value = reply.kind !== 'ok'
    if (reply.kind !== 'ok') return showKept(mine)
    kept.value = false
    const { properties, total } = reply.value
    if (!archived.value) void keepSmall(properties).catch(() => undefined)
    needs.value = reply.value.needs
    rows.value = [...properties, ...gaps(properties.length, total)]
    unsent.value = await countsWaiting().catch(() => new Map())
  }
  const gaps = (from: number, to: number): Gap[] =>
    Array.from({ length: Math.max(0, to - from) }, (_, i) => ({ id: `gap-${from + i}`, gap: true }))

  /** Loads what of the rows from one to another has not come yet. */
  async function loadRows(from: number, to: number): Promise<void> {
    const mine = asked
    const last = Math.min(to, (rows.value?.length ?? 0) - 1)
    for (let at = from - (from % LIST_WINDOW); at <= last; at += LIST_WINDOW) {
      const isThere = rows.value?.slice(at, at + LIST_WINDOW).every((r) => !('gap' in r))
      if (isThere || under.has(at)) continue
      under.add(at)
      const reply = await fetchProperties(looking.value, archived.value, at, today())
      under.delete(at)
      if (mine !== asked) return
      if (reply.kind !== 'ok') return
      const now = [...(rows.value ?? [])]
      now.splice(at, reply.value.properties.length, ...reply.value.properties)
      rows.value = now
    }
  }
  /** Without a signal: what this device keeps, by the same words. */
  async function showKept(mine: number): Promise<void> {
    const words = looking.value.find.trim().toLowerCase()
    const here = (await keptProperties().catch(() => [])).filter((k) => k.name.toLowerCase().includes(words))
    if (mine !== asked || here.length === 0 || archived.value) return
    rows.value = here.map((k): Listed => ({ ...k, ...NOTHING_ASKED, archived: false }))
    needs.value = {}
    kept.value = true
    unsent.value = await countsWaiting().catch(() => new Map())
  }
  onMounted(load)
  // Whether it is drawn as a map is in the address too, and asks for nothing anew.
  watch([() => JSON.stringify(looking.value), archived], () => void load())
  /** What is typed to be found: the address follows when the letters pause. */
  const find = ref(looking.value.find)
  let told = find.value
  let soon: ReturnType<typeof setTimeout> | undefined
  watch(find, (typed) => {
    clearTimeout(soon)
    soon = setTimeout(() => {
      told = typed
      if (typed !== looking.value.find) look({ ...looking.value, find: typed })
    }, PAUSE_ms)
  })
  // An address that came from elsewhere, as from a view or the way back; our own comes late, after further letters.
  watch(
    () => looking.value.find,
    (now) => {
      if (now !== told) find.value = now
    },
  )
  onBeforeUnmount(() => clearTimeout(soon))
  return {
    t,
    speaker,
    find,
    looking,
    look,
    asMap,
    show,
    archived,
    rows,
    needs,
    unreachable,
    kept,
    unsent,
    load,
    loadRows,
  }
}
