import { quotesIn } from '../quoted'
import {
  jobsByVisit,
  peopleOf,
  readingsOf,
  type Facts,
  type SightingState,
  type Sighted,
  type WorkTarget,
} from '../record'
import { sightingsIn } from '../sightings'
import type { Write } from '../site'

/** A change of the record as the journal has it. */
export interface Change {
  readonly revision: number
  readonly at: string
  readonly author: string
  readonly writes: readonly Write[]
}

interface Happened {
  /** Of the fact it comes from, or of the day’s last change; the same whenever it is looked at. */
  readonly id: string
  readonly at: string
  readonly by: readonly string[]
}
/** Something that happened at a property. */
export type Happening = Happened &
  (
    | { readonly kind: 'visit'; readonly jobs: number; readonly readings: number }
    /** A part that was found bad and mended. */
    | { readonly kind: 'mended'; readonly says: string; readonly how: string; readonly job: string }
    | { readonly kind: 'seen'; readonly what: Sighted; readonly on: WorkTarget; readonly note: string }
    | { readonly kind: 'turned'; readonly what: Sighted; readonly on: WorkTarget; readonly to: SightingState }
    | { readonly kind: 'quote'; readonly items: number }
    | { readonly kind: 'answer'; readonly to: 'accepted' | 'declined'; readonly name: string; readonly items: number }
    | { readonly kind: 'work'; readonly says: string; readonly minutes: number | null }
    /** Changes of one person on one day: of the programs, of what was left for a while, or of the record. */
    | { readonly kind: 'schedule' | 'temporary' | 'record'; readonly count: number; readonly revision: number }
  )
export type HappeningKind = Happening['kind']

/** Everything that happened at a property, the latest first: who, and when. What was struck out is left out. */
export function timelineOf(facts: Facts, changes: readonly Change[]): Happening[] {
  return [...visitsOf(facts), ...mendedOf(facts), ...seenOf(facts), ...quotesOf(facts), ...changesOf(changes)].sort(
    (a, b) => Date.parse(b.at) - Date.parse(a.at) || b.id.localeCompare(a.id),
  )
}

function visitsOf(facts: Facts): Happening[] {
  const jobs = jobsByVisit(facts)
  return Object.entries(facts.visits).map(([id, { at }]): Happening => {
    const own = jobs.get(id) ?? []
    const readings = own.reduce((sum, job) => sum + readingsOf(facts, job).filter((r) => r.struck === null).length, 0)
    return { kind: 'visit', id, at, by: peopleOf(facts, id), jobs: own.length, readings }
  })
}

const mendedOf = (facts: Facts): Happening[] =>
  Object.entries(facts.findings).map(([id, { at, author, says, how, job }]) => ({
    ...{ kind: 'mended' as const, id, at, by: named(author), says, how, job },
  }))

const seenOf = (facts: Facts): Happening[] =>
  sightingsIn(facts).flatMap(({ id, seen, turn }): Happening[] => {
    const { what, on, note } = seen
    const first: Happening = { kind: 'seen', id, at: seen.at, by: named(seen.author), what, on, note }
    if (!turn) return [first]
    return [
      first,
      { kind: 'turned', id: `${id} ${turn.to}`, at: turn.at, by: named(turn.author), what, on, to: turn.to },
    ]
  })

const quotesOf = (facts: Facts): Happening[] =>
  quotesIn(facts).flatMap(({ id, quote, state, turn, accepted, done }): Happening[] => {
    if (state === 'withdrawn') return []
    const sent: Happening = { kind: 'quote', id, at: quote.at, by: named(quote.author), items: quote.items.length }
    const works = [...done].map(([key, { at, author, minutes }]): Happening => {
      const says = quote.items.find((i) => i.key === key)?.says ?? ''
      return { kind: 'work', id: `${id} ${key}`, at, by: named(author), says, minutes }
    })
    if (turn?.to.kind !== 'answered') return [sent, ...works]
    const to = accepted.size > 0 ? ('accepted' as const) : ('declined' as const)
    const { at, author } = turn
    const answer = { kind: 'answer' as const, id: `${id} ${to}`, at, by: named(author), to, name: turn.to.name }
    return [sent, { ...answer, items: accepted.size }, ...works]
  })

const KIND_OF: Readonly<Record<string, 'schedule' | 'temporary'>> = {
  programs: 'schedule',
  temporaryStates: 'temporary',
}

/** What one person changed on one day is one happening a kind. */
function changesOf(changes: readonly Change[]): Happening[] {
  const days = new Map<string, Happening & { kind: 'schedule' | 'temporary' | 'record' }>()
  for (const { revision, at, author, writes } of changes) {
    const kinds = new Set(writes.map((w) => KIND_OF[String(w.path[0])] ?? ('record' as const)))
    for (const kind of kinds) {
      const key = `${kind} ${at.slice(0, 10)} ${author}`
      const was = days.get(key)
      const isLater = !was || Date.parse(at) >= Date.parse(was.at)
      days.set(key, {
        ...{ kind, id: key, by: named(author), count: (was?.count ?? 0) + 1 },
        at: isLater ? at : was.at,
        revision: Math.max(revision, was?.revision ?? 0),
      })
    }
  }
  return [...days.values()]
}

const named = (author: string): string[] => (author === '' ? [] : [author])
