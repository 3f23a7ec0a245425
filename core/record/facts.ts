import { accepted, refusal, refused, type Outcome } from '../refusal'
import { endKey } from '../site/end-key'
import type { ControllerId, Site } from '../site'
import { lookUp } from '../site/look-up'
import { testKindOf, type FieldTest, type FieldTestKind } from './tests'
import type { JobKind } from './kinds/job'
import { kindOf, ownerIdOf, type FactBody, type Facts } from './kinds'
import type { Reading } from './kinds/reading'

/**
 * The facts with one more. A fact already there under this id stays as it is; one that points at nothing is refused.
 */
export function withFact(facts: Facts, id: string, { kind, fact }: FactBody): Outcome<Facts> {
  const { collection, owner } = kindOf(kind)
  if (lookUp(facts[collection], id)) return accepted(facts)
  const ownerId = ownerIdOf(kind, fact)
  if (owner && !lookUp(facts[kindOf(owner.kind).collection], ownerId!))
    return refused(refusal('fact_points_nowhere', [collection, id], { id: ownerId! }))
  return accepted({ ...facts, [collection]: { ...facts[collection], [id]: fact } })
}

/** A reading with its id, and the reason if it was struck out. */
export interface Logged {
  readonly id: string
  readonly reading: Reading
  readonly struck: string | null
}

const grouped = new WeakMap<Facts, ReadonlyMap<string, readonly Logged[]>>()

/** Every job's readings in the order taken, struck ones included; worked out once for a set of facts. */
function byJob(facts: Facts): ReadonlyMap<string, readonly Logged[]> {
  const made = grouped.get(facts)
  if (made) return made
  const struck = new Map(Object.values(facts.strikeOuts).map((s) => [s.reading, s.reason]))
  const groups = new Map<string, Logged[]>()
  for (const [id, reading] of Object.entries(facts.readings)) {
    const group = groups.get(reading.job) ?? []
    groups.set(reading.job, group)
    group.push({ id, reading, struck: struck.get(id) ?? null })
  }
  for (const group of groups.values())
    group.sort((a, b) => a.reading.at.localeCompare(b.reading.at) || a.id.localeCompare(b.id))
  grouped.set(facts, groups)
  return groups
}

/** A job's readings in the order taken, struck ones included. */
export const readingsOf = (facts: Facts, job: string): readonly Logged[] => byJob(facts).get(job) ?? []

/** Whether a test reads ohms to earth. */
export const isToEarth = (test: FieldTest): boolean =>
  test.kind === 'lead_earth' || test.kind === 'common_earth' || (test.kind === 'ohms' && test.to.kind === 'earth')

/** A text that is equal for the same test: the two points of an ohms reading may be exchanged. */
export function testKey(test: FieldTest): string {
  if (test.kind === 'ohms') return ['ohms', ...[endKey(test.from), endKey(test.to)].sort()].join(' ')
  if (test.kind === 'swap_test') return `swap_test ${endKey(test.at)} ${endKey(test.onto)}`
  if (test.kind === 'coil_beside') return `coil_beside ${test.device} ${endKey(test.live)}`
  if ('at' in test) return `${test.kind} ${endKey(test.at)}`
  return `${test.kind} ${'device' in test ? test.device : 'splice' in test ? test.splice : test.controller}`
}

/** A text that is equal for readings of which the later replaces the earlier: of the same test in the same state. */
export const readingKey = ({ test, state }: Pick<Reading, 'test' | 'state'>): string =>
  state === undefined ? testKey(test) : `${testKey(test)} ${state}`

/** Which conductors are off the terminals while a test is made. */
export const offFor = (kind: FieldTestKind): Reading['off'] =>
  testKindOf(kind).setup.leads === 'off' ? 'all_leads' : 'none'

/** Whose wiring a test belongs to; null where that cannot be said, as of a coil that nobody's station runs. */
export function controllerOf(site: Site, test: FieldTest): ControllerId | null {
  if (test.kind === 'ohms') return test.from.kind === 'terminal' ? test.from.controller : null
  if (test.kind === 'supply') return test.controller
  if ('at' in test) return test.at.controller
  if (test.kind === 'coil_beside') return test.live.controller
  if ('splice' in test) return null
  return (
    Object.values(site.stations).find((s) => s.valves.includes(test.device))?.controller ??
    Object.values(site.pointsOfConnection).find((p) => p.masterValve === test.device || p.pumpRelay === test.device)
      ?.terminal?.controller ??
    null
  )
}

/** The job's readings that count: of the same test in the same state, the last that was not struck out. */
export function standingReadings(facts: Facts, job: string): Logged[] {
  const standing = new Map<string, Logged>()
  for (const logged of readingsOf(facts, job))
    if (logged.struck === null) standing.set(readingKey(logged.reading), logged)
  return [...standing.values()]
}

/** What a job has to go by: its standing readings, and of other tests those of the job that it goes on from. */
export function readingsToGoBy(facts: Facts, job: string): Logged[] {
  const found = new Map<string, Logged>()
  const seen = new Set<string>()
  for (let id: string | undefined = job; id !== undefined && !seen.has(id); id = facts.jobs[id]?.takes) {
    seen.add(id)
    for (const logged of standingReadings(facts, id)) {
      const key = readingKey(logged.reading)
      if (!found.has(key)) found.set(key, logged)
    }
  }
  return [...found.values()].sort((a, b) => Date.parse(a.reading.at) - Date.parse(b.reading.at))
}

const latestFirst = (collection: Readonly<Record<string, { readonly at: string }>>): string[] =>
  Object.keys(collection).sort(
    (a, b) => Date.parse(collection[b]!.at) - Date.parse(collection[a]!.at) || b.localeCompare(a),
  )

/** Visits, the latest first. */
export const visitsInOrder = (facts: Facts): string[] => latestFirst(facts.visits)

/** Everybody who took part in a visit: those named when it began, and who wrote of its jobs. */
export function peopleOf(facts: Facts, visit: string): string[] {
  const { author, people } = facts.visits[visit]!
  const workers = Object.values(facts.jobs).filter((j) => j.visit === visit)
  return [...new Set([author, ...people, ...workers.map((j) => j.author)])].filter((name) => name !== '')
}

/** The jobs of each visit, the latest first. */
export function jobsByVisit(facts: Facts): ReadonlyMap<string, readonly string[]> {
  const groups = new Map<string, string[]>()
  for (const id of jobsInOrder(facts)) {
    const { visit } = facts.jobs[id]!
    groups.set(visit, [...(groups.get(visit) ?? []), id])
  }
  return groups
}

/** Jobs of a kind, or of all kinds, the latest first. */
export const jobsInOrder = (facts: Facts, kind: JobKind | null = null): string[] =>
  latestFirst(facts.jobs).filter((id) => kind === null || facts.jobs[id]!.kind === kind)

/** Kinds of job in which nothing is read at a terminal. */
const READ_NOTHING: readonly JobKind[] = ['cores', 'trace']

/** Jobs in which readings of the wiring are taken, the latest first. */
export const jobsThatRead = (facts: Facts): string[] =>
  jobsInOrder(facts).filter((id) => !READ_NOTHING.includes(facts.jobs[id]!.kind))
