import { computed, watch } from 'vue'
import { goodReadings } from '../../core/history'
import type { Circumstances, HuntReport, HuntStep, Known } from '../../core/hunt'
import { standingReadings, type Reading, type Job } from '../../core/record'
import type { PlaceId } from '../../core/site'
import { huntWorker, stopHuntWorker } from './huntWorker'
import { useProperty } from '../stores/property'
import type { HuntAsk } from '../workers/hunt'
import { useWeighing } from './useWeighing'

/** A reading of the hunt that stands, with its id. */
export interface HuntReading {
  readonly id: string
  readonly reading: Reading
}

/**
 * The hunt of a job: its readings and findings in the order they were taken, weighed beside the page. Struck-out
 * readings fall out and the rest is weighed anew. While `holding`, as several readings are kept one after the other,
 * nothing is said.
 */
export function useHunt(
  jobId: () => string | null,
  holding: () => boolean,
  options: () => { from: PlaceId | null; helper: boolean; circumstances: Circumstances },
) {
  const property = useProperty()
  const log = useHuntLog(jobId)
  const { job, steps } = log
  const known = computed((): Known[] => {
    const v = job.value
    if (!v) return []
    const scene = property.sceneAt(v.ground_C, v.coil_C)
    return goodReadings(scene, property.sceneAt, v.controller, v.meter, property.pastBefore(jobId()))
  })
  const { answer, weigh, ...weighing } = useWeighing<HuntReport | null>(() => {
    const [site, v] = [property.site, job.value]
    if (!site || !v || holding()) return null
    const { controller, ground_C, coil_C, meter } = v
    const today = v.at.slice(0, 10)
    const ask: HuntAsk = { site, controller, ground_C, coil_C, meter, known: known.value, today, ...options() }
    // A worker takes plain values, not what a page follows.
    const [plain, taken] = JSON.parse(JSON.stringify([ask, steps.value])) as [HuntAsk, HuntStep[]]
    return () => huntWorker().stand(plain, taken)
  }, stopHuntWorker)
  watch(jobId, () => {
    answer.value = null
  })
  watch([() => property.site, job, steps, known, options, holding], () => void weigh(), { immediate: true })
  return { ...log, ...weighing, weigh, report: answer }
}

/** What a job of hunting holds: its readings that stand, its findings, and both in the order they came. */
function useHuntLog(jobId: () => string | null) {
  const property = useProperty()
  const job = computed((): Job | null => {
    const id = jobId()
    return id === null ? null : (property.facts?.jobs[id] ?? null)
  })
  const readings = computed((): HuntReading[] => {
    const id = jobId()
    return id === null || !property.facts
      ? []
      : standingReadings(property.facts, id).map(({ id: of, reading }) => ({ id: of, reading }))
  })
  const findings = computed(() =>
    Object.entries(property.facts?.findings ?? {})
      .filter(([, f]) => f.job === jobId())
      .sort(([, a], [, b]) => a.at.localeCompare(b.at)),
  )
  const steps = computed((): HuntStep[] =>
    [
      ...readings.value.map(({ reading: { at, test, value } }) => ({ at, step: { test, value } as HuntStep })),
      ...findings.value.flatMap(([, { at, where }]) => (where ? [{ at, step: { mended: where } as HuntStep }] : [])),
    ]
      .sort((a, b) => a.at.localeCompare(b.at))
      .map((s) => s.step),
  )
  return { job, readings, findings, steps }
}
