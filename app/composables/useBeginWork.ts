import { controllerFor, shipped } from '../../core/procedure'
import type { Job, Procedure, WorkTarget } from '../../core/record'
import type { ControllerId } from '../../core/site'
import { authorName, lastMeter } from '../lib/device'
import { useProperty } from '../stores/property'
import { useVisitToday } from './useVisitToday'

/** Begins a piece of work that follows a procedure: in today’s visit, which begins with it where there is none. */
export function useBeginWork() {
  const property = useProperty()
  const underWay = useVisitToday()

  /** The ground’s temperature as it was taken on this visit, else what its latest job has, else the property’s. */
  function groundNow(visit: string | null): number {
    const { facts, site } = property
    const jobs = Object.entries(facts!.jobs).filter(([, j]) => j.visit === visit)
    const taken = Object.values(facts!.steps)
      .filter((s) => s.step === 'ground' && s.answer.kind === 'figure' && jobs.some(([id]) => id === s.job))
      .sort((a, b) => a.at.localeCompare(b.at))
      .at(-1)?.answer
    // A slip of the hand is no temperature: a job takes what a ground can have.
    if (taken?.kind === 'figure' && taken.value >= -40 && taken.value <= 90) return taken.value
    return jobs.sort(([, a], [, b]) => a.at.localeCompare(b.at)).at(-1)?.[1].ground_C ?? site!.settings.ground_C
  }

  /** @returns the job’s id, or null where the property has no controller yet */
  async function beginJob(
    what: Pick<Job, 'kind' | 'follows' | 'sorts' | 'traces'>,
    controller: ControllerId | null,
    people: readonly string[] = [],
  ): Promise<string | null> {
    if (controller === null) return null
    const [at, author] = [new Date().toISOString(), authorName()]
    const visit =
      underWay.value?.id ?? (await property.record({ kind: 'visit', fact: { at, author, people: [...people] } }))
    const ground_C = groundNow(visit)
    return property.record({
      kind: 'job',
      fact: { visit, at, author, controller, title: '', ground_C, coil_C: null, meter: lastMeter(), ...what },
    })
  }

  /** @returns the job’s id, or null where the property has no controller yet */
  async function begin(
    procedure: Procedure,
    target: WorkTarget,
    people: readonly string[] = [],
  ): Promise<string | null> {
    const own = shipped(procedure.id) ? {} : { own: procedure }
    return beginJob(
      { kind: 'procedure', follows: { id: procedure.id, on: target, ...own } },
      controllerFor(property.site!, target),
      people,
    )
  }
  return { begin, beginJob, underWay }
}
