import { wrap, type Remote } from 'comlink'
import { useI18n } from 'vue-i18n'
import type { Facts, Marked } from '../../core/record'
import { fineLengthText } from '../../core/quantity'
import { lookUp, tagAndName, type PlaceId, type Site } from '../../core/site'
import { marksOf, marksOfKind, traceSoFar, type BoxEvidence, type Find, type SearchArea } from '../../core/trace'
import { traceEn } from '../../words/trace-en'
import { authorName } from '../lib/device'
import { useProperty } from '../stores/property'
import type { TraceWork } from '../workers/trace'
import { useWorkWords } from './useWorkWords'

let taken = false
/** The words of tracing; they come with that place. */
export function useTraceWords() {
  if (!taken) useI18n({ useScope: 'global' }).mergeLocaleMessage('en', traceEn)
  taken = true
  const property = useProperty()
  return useWorkWords(() => property.site!.settings.units)
}

let worker: Remote<TraceWork> | null = null
function workerAtHand(): Remote<TraceWork> {
  worker ??= wrap<TraceWork>(new Worker(new URL('../workers/trace.ts', import.meta.url), { type: 'module' }))
  return worker
}
/** What speaks of a trace alone, as plain values for the worker. */
const plainFor = (site: Site, facts: Facts): [Site, Facts] =>
  JSON.parse(JSON.stringify([site, { ...facts, readings: {}, steps: {}, photos: {}, photoNotes: {} }])) as [Site, Facts]

/** One trace as it is walked: what was marked, what that says, and the door by which marks come in. */
export function useTrace(jobId: () => string) {
  const property = useProperty()
  const { t, speaker } = useTraceWords()
  const job = computed(() => lookUp(property.facts!.jobs, jobId()) ?? null)
  const traces = computed(() => job.value?.traces ?? null)
  const marks = computed(() => marksOf(property.facts!, jobId()))
  const trace = computed(() => (traces.value ? traceSoFar(property.site!, traces.value, marks.value) : null))
  const flags = computed(() => marksOfKind(marks.value, 'way'))
  const probes = computed(() => marksOfKind(marks.value, 'probe'))
  const units = computed(() => property.site!.settings.units)
  const metres = (length_m: number, digits = 2) => fineLengthText(length_m, units.value, digits)

  const write = (marked: Marked) =>
    property.record({
      kind: 'mark',
      fact: { job: jobId(), at: new Date().toISOString(), author: authorName(), marked },
    })
  const takeBack = async (kinds: readonly Marked['kind'][]): Promise<void> => {
    const last = marks.value.filter((m) => kinds.includes(m.marked.kind)).at(-1)
    if (last) await write({ kind: 'back', mark: last.id })
  }

  const finds = shallowRef<readonly Find[]>([])
  const search = shallowRef<{ evidence: BoxEvidence; area: SearchArea | null } | null>(null)
  const weighing = ref(false)
  let asked = 0
  /** What comes in while it is reckoned is reckoned next: a walk never waits for it. */
  let again = false
  async function reckon(): Promise<void> {
    if (weighing.value) {
      again = true
      return
    }
    const mine = ++asked
    weighing.value = true
    do {
      again = false
      const box = traces.value?.box as PlaceId | null | undefined
      const [site, facts] = plainFor(property.site!, property.facts!)
      const found = await workerAtHand().finds(site, facts, jobId())
      const area = box ? await workerAtHand().area(site, facts, box) : null
      if (mine !== asked) return
      finds.value = found
      search.value = area
    } while (again)
    weighing.value = false
  }
  watch([marks, () => property.site], () => void reckon(), { immediate: true })
  onBeforeUnmount(() => {
    asked++
  })

  const name = (place: string | null | undefined): string =>
    place ? (lookUp(property.site!.places, place as PlaceId)?.tag ?? '?') : '?'
  const cableName = computed(() => {
    const cable = traces.value?.cable && lookUp(property.site!.cables, traces.value.cable)
    return cable ? tagAndName(cable) : t('trace.unknown')
  })
  return {
    property,
    t,
    speaker,
    job,
    traces,
    marks,
    trace,
    flags,
    probes,
    units,
    metres,
    write,
    takeBack,
    finds,
    search,
    weighing,
    name,
    cableName,
  }
}
export type TraceWorkHere = ReturnType<typeof useTrace>
