import { computed, watch } from 'vue'
import { corrected_ohm } from '../../core/expect'
import { asReadNow, goodReadings } from '../../core/history'
import { asTaken, leftOn, type HuntReport, type HuntStep, type Known } from '../../core/hunt'
import { failingStates, readingsToGoBy, type Reading, type Job, type WiringState } from '../../core/record'
import { huntWorker, stopHuntWorker } from './huntWorker'
import { useProperty } from '../stores/property'
import type { HuntAsk } from '../workers/hunt'
import { useWeighing } from './useWeighing'

/** A reading that a hunt goes by, with its id; `taken`: it came along from another job. */
export interface HuntReading {
  readonly id: string
  readonly reading: Reading
  readonly taken: boolean
}

/**
 * The hunt of a job: its readings, those of the job it goes on from, and its findings, in the order they were taken,
 * weighed beside the page, by the odds that the company goes by. Struck-out readings fall out and the rest is weighed
 * anew. While `holding`, as several readings are kept one after the other, nothing is said.
 */
export function useHunt(
  jobId: () => string | null,
  holding: () => boolean,
  options: () => Pick<HuntAsk, 'from' | 'helper' | 'circumstances' | 'odds'>,
) {
  const property = useProperty()
  const log = useHuntLog(jobId)
  const { job, steps, failing } = log
  const known = computed((): Known[] => {
    const v = job.value
    if (!v) return []
    const scene = property.sceneAt(v.ground_C, v.coil_C)
    const before = goodReadings(scene, property.sceneAt, v.controller, v.meter, property.pastBefore(jobId()))
    // What was taken as the baseline is how the thread reads, from this job on.
    const accepted = Object.values(property.facts!.acceptances).flatMap(({ reading: id }): Known[] => {
      const reading = property.facts!.readings[id]
      return reading?.job === jobId() && reading.value.kind === 'ohm'
        ? [{ test: reading.test, ohm: corrected_ohm(reading.value.ohm, reading.meter) }]
        : []
    })
    return [...before, ...accepted]
  })
  const { answer, weigh, ...weighing } = useWeighing<HuntReport | null>(() => {
    const [site, v] = [property.site, job.value]
    if (!site || !v || holding() || steps.value.length === 0) return null
    const { controller, ground_C, coil_C, meter } = v
    const today = v.at.slice(0, 10)
    const told = { known: known.value, failing: [...failing.value], left: leftOn(site, today), today }
    const ask: HuntAsk = { site, controller, ground_C, coil_C, meter, ...told, ...options() }
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
      : readingsToGoBy(property.facts, id).map(({ id: of, reading }) => ({
          id: of,
          reading,
          taken: reading.job !== id,
        }))
  })
  /** What a reading that came along would be now, by this job's meter. */
  const asNow = ({ reading, taken }: HuntReading): Reading['value'] => {
    const [now, then] = [job.value, property.facts?.jobs[reading.job]]
    if (!taken || !now || !then) return reading.value
    const [before, here] = [then, now].map((j) => property.sceneAt(j.ground_C, j.coil_C))
    return asReadNow(reading, before!, here!, now.meter)
  }
  const findings = computed(() =>
    Object.entries(property.facts?.findings ?? {})
      .filter(([, f]) => f.job === jobId())
      .sort(([, a], [, b]) => a.at.localeCompare(b.at)),
  )
  /** The states in which alone something fails, as the readings say. */
  const failing = computed(() =>
    property.site
      ? failingStates(
          property.site,
          readings.value.map((r) => r.reading),
        )
      : new Set<WiringState>(),
  )
  const steps = computed((): HuntStep[] =>
    [
      ...readings.value.map((r) => ({
        at: r.reading.at,
        step: { test: asTaken(r.reading, failing.value), value: asNow(r) } as HuntStep,
      })),
      ...findings.value.flatMap(([, { at, where }]) => (where ? [{ at, step: { mended: where } as HuntStep }] : [])),
    ]
      .sort((a, b) => a.at.localeCompare(b.at))
      .map((s) => s.step),
  )
  return { job, readings, findings, steps, failing }
}
