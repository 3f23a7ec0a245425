import { wrap, type Remote } from 'comlink'
import { goodReadings } from '../../core/history'
import type { Circumstances, HuntReport, HuntStep, Known } from '../../core/hunt'
import { standingReadings, type Reading, type Job } from '../../core/record'
import type { PlaceId } from '../../core/site'
import { useProperty } from '../stores/property'
import type { HuntAsk, HuntWork } from '../workers/hunt'

let worker: Remote<HuntWork> | null = null
const workerAtHand = (): Remote<HuntWork> =>
  (worker ??= wrap<HuntWork>(new Worker(new URL('../workers/hunt.ts', import.meta.url), { type: 'module' })))

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
      ...readings.value.map((r) => ({
        at: r.reading.at,
        step: { test: r.reading.test, value: r.reading.value } as HuntStep,
      })),
      ...findings.value.flatMap(([, { at, where }]) => (where ? [{ at, step: { mended: where } as HuntStep }] : [])),
    ]
      .sort((a, b) => a.at.localeCompare(b.at))
      .map((s) => s.step),
  )
  const known = computed((): Known[] => {
    const v = job.value
    return v
      ? goodReadings(
          property.sceneAt(v.ground_C, v.coil_C),
          property.sceneAt,
          v.controller,
          v.meter,
          property.pastBefore(jobId()),
        )
      : []
  })
  const report = shallowRef<HuntReport | null>(null)
  const [working, failed] = [ref(false), ref('')]
  let [waiting, running] = [false, false]
  /** One weighing at a time; what came in meanwhile is weighed next, all at once. */
  async function weigh(): Promise<void> {
    if (holding()) {
      report.value = null
      return
    }
    waiting = true
    if (running) return
    running = true
    working.value = true
    while (waiting) {
      waiting = false
      const [site, v] = [property.site, job.value]
      if (!site || !v) {
        report.value = null
        continue
      }
      const ask: HuntAsk = {
        site,
        controller: v.controller,
        ground_C: v.ground_C,
        coil_C: v.coil_C,
        meter: v.meter,
        known: known.value,
        today: v.at.slice(0, 10),
        ...options(),
      }
      try {
        const answer = await workerAtHand().stand(
          ...(JSON.parse(JSON.stringify([ask, steps.value])) as [HuntAsk, HuntStep[]]),
        )
        if (!waiting && !holding()) {
          report.value = answer
          failed.value = ''
        }
      } catch (error) {
        report.value = null
        failed.value = String(error)
      }
    }
    running = false
    working.value = false
  }
  watch(jobId, () => {
    report.value = null
  })
  watch([() => property.site, job, steps, known, options, holding], () => void weigh(), { immediate: true })
  return { job, readings, findings, report, working, failed }
}
