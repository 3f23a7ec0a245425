import { sessionOf, trialsOf } from '../../core/cores'
import { jobsInOrder } from '../../core/record'
import { lookUp, type CableId, type PlaceId } from '../../core/site'
import { marksOf, traceSoFar } from '../../core/trace'
import { useProperty } from '../stores/property'
import { useCoresWords } from './useCores'
import { useTraceWords } from './useTrace'

/** A job of Find as lists show it: what it is on, how far it is, and where it goes on. */
export interface FindJob {
  readonly id: string
  readonly at: string
  readonly heading: string
  readonly says: string
  readonly go: string
  /** Within the property. */
  readonly to: string
}

/** Cables that were sorted and wires that were traced here, the latest of each kind first. */
export function useFindJobs() {
  const property = useProperty()
  const { t } = useCoresWords()
  useTraceWords()
  const place = (id: PlaceId) => lookUp(property.site!.places, id)?.tag ?? '?'
  const cableName = (id: CableId | null, unknown: string): string => {
    const cable = id === null ? undefined : lookUp(property.site!.cables, id)
    return cable ? (cable.tag ?? cable.name) : unknown
  }

  const sorted = computed(() =>
    jobsInOrder(property.facts!, 'cores').flatMap((id): FindJob[] => {
      const { sorts, at } = property.facts!.jobs[id]!
      if (!sorts) return []
      const { found, steps } = sessionOf(sorts, trialsOf(property.facts!, id))
      const heading = t('cores.heading', {
        cable: cableName(sorts.cable, t('cores.unknownCable')),
        first: place(sorts.first),
        second: place(sorts.second),
        count: sorts.cores,
      })
      const says = t('cores.count', { named: found.named.length, count: sorts.cores })
      return [{ id, at, heading, says, go: t(steps.length === 0 ? 'cores.look' : 'cores.resume'), to: `/cores/${id}` }]
    }),
  )
  const traced = computed(() =>
    jobsInOrder(property.facts!, 'trace').flatMap((id): FindJob[] => {
      const { traces, at } = property.facts!.jobs[id]!
      if (!traces) return []
      const cable = cableName(traces.cable, t('trace.unknown'))
      const { along, sections } = traceSoFar(property.site!, traces, marksOf(property.facts!, id))
      const heading = traces.box
        ? t('trace.headingBox', { box: place(traces.box), cable })
        : t('trace.heading', { cable })
      const says = t('trace.counts', { along: along.length, sections: sections.length })
      return [{ id, at, heading, says, go: t('trace.look'), to: `/trace/${id}` }]
    }),
  )
  return { sorted, traced }
}
