import { quarryLake } from '../demo/quarry-lake'
import { controllerFor, runOf, testOf, type Run } from '../core/procedure'
import {
  COMMON_METER,
  noFacts,
  type Facts,
  type Reading,
  type ReadingValue,
  type StepAnswer,
  type WorkTarget,
} from '../core/record'
import type { Site } from '../core/site'

/** A procedure that is followed, and its answers as they come in: on the demo property where nothing else is said. */
export class FollowedWork {
  facts: Facts = noFacts()
  private at = Date.parse('2027-03-01T08:00:00Z')
  constructor(
    readonly id: string,
    readonly target: WorkTarget,
    public site: Site = quarryLake(),
  ) {
    this.facts = {
      ...this.facts,
      visits: { v: { at: this.now(), author: 'Ada', people: [] } },
      jobs: {
        j: {
          visit: 'v',
          at: this.now(),
          author: 'Ada',
          kind: 'procedure',
          controller: controllerFor(site, target)!,
          title: '',
          ground_C: 14,
          coil_C: null,
          meter: COMMON_METER,
          follows: { id, on: target },
        },
      },
    }
  }
  now = () => new Date((this.at += 60_000)).toISOString()
  give(step: string, answer: StepAnswer = { kind: 'done' }, author = 'Ada'): Run {
    const id = `s${Object.keys(this.facts.steps).length}`
    const fact = { job: 'j', at: this.now(), author, step, heeded: true, answer }
    this.facts = { ...this.facts, steps: { ...this.facts.steps, [id]: fact } }
    return this.run()
  }
  /** A reading that a step asks for; a figure by itself is ohms. */
  read(step: string, read: number | ReadingValue): string {
    const here = this.run().steps.find((s) => s.key === step)!
    const id = `r${Object.keys(this.facts.readings).length}`
    const { ground_C, meter } = this.facts.jobs.j!
    const shared = { job: 'j', at: this.now(), author: 'Ada', revision: 0, off: 'all_leads', meter, ground_C } as const
    const value = typeof read === 'number' ? { kind: 'ohm', ohm: read } : read
    const reading = { ...shared, test: testOf(this.site, here)!, value } as Reading
    this.facts = { ...this.facts, readings: { ...this.facts.readings, [id]: reading } }
    this.give(step, { kind: 'reading', reading: id })
    return id
  }
  run = (): Run => runOf(this.site, this.facts, 'j')!
  state = (step: string) => this.run().steps.find((s) => s.key === step)?.state ?? 'not there'
}
