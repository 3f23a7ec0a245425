import type { Facts } from '../record'
import { entries, type Device, type Site, type Splice, type Write } from '../site'

/** A change of the record as the journal has it. */
export interface JournalChange {
  readonly id: string
  readonly at: string
  readonly undoes: string | null
  readonly writes: readonly Write[]
}

/** Parts whose failures are counted. */
export const COUNTED = ['joint', 'coil'] as const
export type Counted = (typeof COUNTED)[number]

/** A joint or coil from the day it came under our eyes until it failed, was made anew or taken away. */
export interface Life {
  readonly part: Counted
  /** What holds a joint; the name of a coil’s kind; empty where that is not on record. */
  readonly kind: string
  /** The day it was made or put in; null where nobody knows. */
  readonly made: string | null
  readonly from: string
  /** Null of one that lives on. */
  readonly until: string | null
  /** `found_bad`: it was bad when it was first seen, so that nobody saw it fail. */
  readonly end: 'lives' | 'gone' | 'failed' | 'found_bad'
}

const DAY_ms = 86_400_000
/** A day of making so shortly before it was written down means that the part was made anew then. */
const MADE_NOW_days = 7

/**
 * The lives of a property’s joints and coils, out of the journal of its record and the findings of its hunts. A part
 * fails when it turns bad on record, or is found bad and mended; what was undone never happened.
 * @param began the instant since which the property is on record
 */
export function livesOf(site: Site, facts: Facts, journal: readonly JournalChange[], began: string): Life[] {
  const changes = standing(journal)
  const found = foundBad(facts)
  const kindOf = (d: Coil) => (d.coilKind === null ? '' : (site.coilKinds[d.coilKind]?.name ?? ''))
  const joints = statesOf(site, 'splices', changes, began, (s: Splice): State => ({
    kind: s.connector === 'unknown' ? '' : s.connector,
    made: s.made?.value ?? null,
    isBad: s.condition?.state === 'open',
  }))
  const coils = statesOf(site, 'devices', changes, began, (d: Device): State | null =>
    d.kind === 'coil'
      ? { kind: kindOf(d), made: d.installed?.value ?? null, isBad: d.condition?.state === 'open' }
      : null,
  )
  return [
    ...[...joints].flatMap(([id, spans]) => livesThrough('joint', spans, found.get(`joint ${id}`) ?? [])),
    ...[...coils].flatMap(([id, spans]) => livesThrough('coil', spans, found.get(`coil ${id}`) ?? [])),
  ]
}

type Coil = Extract<Device, { kind: 'coil' }>

/** What stands of a journal: changes that were undone fall out with what undid them. */
function standing(journal: readonly JournalChange[]): JournalChange[] {
  const undone = new Set<string>()
  return [...journal]
    .reverse()
    .filter(({ id, undoes }) => {
      if (undone.has(id)) return false
      if (undoes === null) return true
      undone.add(undoes)
      return false
    })
    .reverse()
}

/** When a hunt that found a part bad began, and when it said so, by the part. */
interface FoundBad {
  readonly began: string
  readonly at: string
}
function foundBad(facts: Facts): Map<string, FoundBad[]> {
  const found = new Map<string, FoundBad[]>()
  for (const { job, at, where } of Object.values(facts.findings)) {
    if (where?.kind !== 'joint' && where?.kind !== 'coil') continue
    const key = where.kind === 'joint' ? `joint ${where.splice}` : `coil ${where.device}`
    found.set(key, [...(found.get(key) ?? []), { began: facts.jobs[job]?.at ?? at, at }])
  }
  return found
}

interface State {
  readonly kind: string
  readonly made: string | null
  readonly isBad: boolean
}
/** A state of a part on record, from one instant to the next. */
interface Span extends State {
  readonly from: string
  readonly until: string | null
}

/**
 * The states of each record of a collection, oldest first, by going back through the journal from what is there now.
 */
function statesOf<T extends object>(
  site: Site,
  collection: 'splices' | 'devices',
  changes: readonly JournalChange[],
  began: string,
  stateOf: (record: T) => State | null,
): Map<string, Span[]> {
  const spans = new Map<string, Span[]>()
  const now = new Map<string, { record: T; until: string | null }>(
    entries(site[collection] as Readonly<Record<string, T>>).map(([id, record]) => [id, { record, until: null }]),
  )
  const close = (id: string, from: string) => {
    const { record, until } = now.get(id)!
    const state = stateOf(record)
    if (state && from !== until) spans.set(id, [{ ...state, from, until }, ...(spans.get(id) ?? [])])
  }
  for (const { at, writes } of [...changes].reverse())
    for (const { path, before } of [...writes].reverse()) {
      const [of, id, field] = path as [string, string, string?]
      if (of !== collection) continue
      if (now.has(id)) close(id, at)
      const was = now.get(id)
      if (field === undefined) {
        if (before === null || before === undefined) now.delete(id)
        else now.set(id, { record: before as T, until: at })
      } else if (was) now.set(id, { record: { ...was.record, [field]: before }, until: at })
    }
  for (const id of now.keys()) close(id, began)
  return spans
}

/** What a part went through, as lives: what is only learned of it later was so from the beginning. */
function livesThrough(part: Counted, spans: readonly Span[], found: readonly FoundBad[]): Life[] {
  const lives: Life[] = []
  let now: Life | null = null
  const end = (at: string, how: 'gone' | 'failed') => {
    if (now) lives.push(ended(now, at, how))
    now = null
  }
  spans.forEach((span, i) => {
    const before = spans[i - 1]
    if (before && before.until !== span.from) end(before.until!, 'gone')
    if (span.isBad) {
      if (now) end(span.from, 'failed')
      else if (!before) lives.push({ part, ...of(span), from: span.from, until: span.from, end: 'found_bad' })
      return
    }
    if (now && isAnew(now, span)) end(span.from, 'gone')
    now = { part, ...of(span), from: now?.from ?? span.from, until: null, end: 'lives' }
  })
  if (now) {
    const { until } = spans.at(-1)!
    if (until === null) lives.push(now)
    else end(until, 'gone')
  }
  return found.reduce(withFinding, lives)
}

const of = ({ kind, made }: State) => ({ kind, made })
const ended = (life: Life, at: string, how: 'gone' | 'failed'): Life => ({
  ...life,
  until: at,
  // One that was bad on the day it came on record was so before.
  end: how === 'failed' && days(life.from, at) < 1 ? 'found_bad' : how,
})
/** Instants are written in more than one way: with parts of a second, or without. */
const isBefore = (one: string, other: string): boolean => Date.parse(one) < Date.parse(other)
const days = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / DAY_ms

/** Whether a part was made anew, or another put in its place; else something was only learned of it. */
function isAnew(life: Life, span: Span): boolean {
  if (life.part === 'joint' && life.kind !== '' && span.kind !== '' && life.kind !== span.kind) return true
  return span.made !== life.made && span.made !== null && Math.abs(days(span.made, span.from)) <= MADE_NOW_days
}

/** A finding ends the life that the part led when its hunt began; mended, it begins another. */
function withFinding(lives: readonly Life[], { began, at }: FoundBad): Life[] {
  const i = lives.findIndex(
    (l) => l.end !== 'found_bad' && (l.until === null || isBefore(began, l.until)) && !isBefore(at, l.from),
  )
  const life = lives[i]
  // Bad on record already when the hunt began: that was counted, and what it was mended to only began in it.
  if (!life || life.end === 'failed' || (i > 0 && isBefore(began, life.from))) return [...lives]
  const until = life.until !== null && isBefore(life.until, at) ? life.until : at
  const next = lives[i + 1]
  const after: Life[] =
    life.until !== null || next ? [] : [{ ...life, made: at.slice(0, 10), from: at, until: null, end: 'lives' }]
  return [...lives.slice(0, i), ended(life, until, 'failed'), ...after, ...lives.slice(i + 1)]
}
