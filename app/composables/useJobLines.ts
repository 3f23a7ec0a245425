import { sweepTerminals, terminalTest } from '../../core/expect'
import { jobsThatRead, standingReadings, testKey, type JobKind } from '../../core/record'
import { getOrThrow, type ControllerId, type TerminalId } from '../../core/site'
import { useProperty } from '../stores/property'
import { useStates } from './useStates'

/** A job as lists show it: how far it got, of a sweep its faults, of a hunt what was mended. */
export interface JobLine {
  readonly id: string
  readonly kind: JobKind
  readonly title: string
  readonly controller: string
  readonly at: string
  readonly readings: number
  readonly mended: number
  /** Null while it is being worked out. */
  readonly faults: number | null
  readonly doubtful: number
  readonly done: number
  readonly all: number
  readonly closed: boolean
}

/** Every sweep and hunt by its id, in the order of `jobsThatRead`. */
export function useJobLines(): ComputedRef<ReadonlyMap<string, JobLine>> {
  const property = useProperty()
  const states = useStates(
    () => property.site,
    () => property.facts,
  )
  /** Behind a sequencer nothing is read at the cabinet. */
  function terminalsReadAt(controller: ControllerId): TerminalId[] {
    const hanging = property.sceneAt(null).hanging(controller)
    const terminals = sweepTerminals(property.site!, controller, hanging)
    return terminals.filter((at) => hanging.get(at)!.switchedBy.length === 0)
  }
  function lineOf(id: string, mended: number, closed: boolean): JobLine {
    const job = property.facts!.jobs[id]!
    const logged = standingReadings(property.facts!, id)
    const found = states.value && logged.map((l) => states.value![l.id])
    const terminals = terminalsReadAt(job.controller)
    const read = new Set(logged.map((l) => testKey(l.reading.test)))
    return {
      id,
      kind: job.kind,
      title: job.title,
      controller: getOrThrow(property.site!.controllers, job.controller).name,
      at: job.at,
      readings: logged.length,
      mended,
      faults: found?.filter((s) => s === 'fault').length ?? null,
      doubtful: found?.filter((s) => s === 'doubtful').length ?? 0,
      done: terminals.filter((at) => read.has(testKey(terminalTest(property.site!, job.controller, at)!))).length,
      all: terminals.length,
      closed,
    }
  }
  return computed(() => {
    const facts = property.facts!
    const closed = new Set(Object.values(facts.closings).map((c) => c.job))
    const mended = new Map<string, number>()
    for (const { job } of Object.values(facts.findings)) mended.set(job, (mended.get(job) ?? 0) + 1)
    // Other kinds are listed by steps of their own.
    const ids = jobsThatRead(facts).filter((id) => facts.jobs[id]!.kind !== 'procedure')
    return new Map(ids.map((id) => [id, lineOf(id, mended.get(id) ?? 0, closed.has(id))]))
  })
}
