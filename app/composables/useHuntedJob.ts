import { jobsInOrder } from '../../core/record'
import { useProperty } from '../stores/property'
import { useJobLines } from './useJobLines'

/**
 * The job that Diagnose shows: the one asked for; else the newest that leaves something unexplained: a hunt that goes
 * on, or a sweep with a reading that does not fit and nothing mended since. `known` once that can be said.
 */
export function useHuntedJob() {
  const route = useRoute()
  const property = useProperty()
  const lines = useJobLines()
  const asked = computed(() => {
    const { job } = route.query
    return typeof job === 'string' && property.facts!.jobs[job] ? job : null
  })
  /** Hunts that go on; what was ended is looked at. */
  const open = computed(() => [...lines.value.values()].filter((l) => l.kind === 'hunt' && !l.closed).map((l) => l.id))
  const known = computed(() => asked.value !== null || [...lines.value.values()].every((l) => l.faults !== null))
  const unexplained = computed(() =>
    [...lines.value.values()]
      .filter((l) =>
        l.kind === 'hunt' ? open.value.includes(l.id) : l.mended === 0 && (l.faults ?? 0) + l.doubtful > 0,
      )
      .map((l) => l.id),
  )
  const jobId = computed(() => asked.value ?? (known.value ? (unexplained.value[0] ?? null) : null))
  /**
   * Jobs to choose from, the newest first: every hunt, what leaves something unexplained, and the one that is shown.
   */
  const listed = computed(() => {
    const hunts = jobsInOrder(property.facts!, 'hunt')
    const all = new Set([...hunts, ...unexplained.value, ...(jobId.value === null ? [] : [jobId.value])])
    return jobsInOrder(property.facts!).filter((id) => all.has(id))
  })
  /** What was ended or read elsewhere is looked at; it takes no more readings. */
  const writable = computed(() => jobId.value !== null && open.value.includes(jobId.value) && property.viewed === null)
  /** How the job was ended; null while it goes on. */
  const ended = computed(() => Object.values(property.facts!.closings).find((c) => c.job === jobId.value) ?? null)
  return { jobId, known, listed, writable, ended }
}
