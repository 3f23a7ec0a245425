import { quotesIn } from '../quoted'
import { visitsInOrder, type Facts } from '../record'
import { knownBad } from '../repair'
import { sightingsIn } from '../sightings'
import { entries, type Site } from '../site'
import type { Threads } from './threads'

/**
 * What of a property asks for somebody. Days instead of “overdue”, so that it holds until the record changes;
 * null where there is none.
 */
export interface Attention {
  /** Threads that read a fault last, and parts that are known to be bad. */
  readonly astray: number
  readonly faults: number
  /** Findings by eye that are neither done nor declined. */
  readonly findings: number
  readonly creeping: number
  /** The first day on which one of them leaves its band. */
  readonly creepsOn: string | null
  readonly temporary: number
  /** The first day by which one of them was to end. */
  readonly temporaryUntil: string | null
  /** Quotes that were sent and not answered, and the day of the oldest. */
  readonly quotes: number
  readonly quotedOn: string | null
  readonly visits: number
  readonly lastVisit: string | null
  readonly visitDue: string | null
}

export function attentionOf(site: Site, facts: Facts, threads: Threads): Attention {
  const days = entries(site.temporaryStates).flatMap(([, { until }]) => (until === null ? [] : [until]))
  const unanswered = quotesIn(facts).filter((q) => q.state === 'open')
  const visits = visitsInOrder(facts)
  const lastVisit = visits.length === 0 ? null : facts.visits[visits[0]!]!.at
  return {
    astray: threads.faults.length,
    faults: knownBad(site).length,
    findings: sightingsIn(facts).filter((s) => s.state !== 'done' && s.state !== 'declined').length,
    creeping: threads.creeping.length,
    creepsOn: threads.creeping[0]?.on ?? null,
    temporary: entries(site.temporaryStates).length,
    temporaryUntil: days.sort()[0] ?? null,
    quotes: unanswered.length,
    quotedOn: unanswered.at(-1)?.quote.at.slice(0, 10) ?? null,
    visits: visits.length,
    lastVisit,
    visitDue: dueAfter(lastVisit, site.settings.visitEvery_months),
  }
}

/** So many months after a visit, on its day of the month or that month's last; null where no visit is waited for. */
function dueAfter(visit: string | null, months: number | null): string | null {
  if (visit === null || months === null) return null
  const [year, month, day] = visit.slice(0, 10).split('-').map(Number) as [number, number, number]
  const lastOfMonth = new Date(Date.UTC(year, month + months, 0)).getUTCDate()
  return new Date(Date.UTC(year, month - 1 + months, Math.min(day, lastOfMonth))).toISOString().slice(0, 10)
}
