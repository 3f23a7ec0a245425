import type { Need } from '../../core/company'
import type { Listed } from './api'

/** One thing that a property asks for somebody with, for its sentence `asks.…`. */
export interface Asked {
  readonly code: Exclude<Need, 'any'> | 'astray' | 'temporaryOpen'
  readonly count: number
  readonly day: string | null
  /** Whether it cannot wait. */
  readonly urgent: boolean
}

/** What a property asks for somebody with on a day, the worst first. */
export function asksOf(p: Listed, today: string): Asked[] {
  const overdue = p.temporaryUntil !== null && p.temporaryUntil < today
  const isDue = p.visitDue !== null && p.visitDue <= today
  const asked: Asked[] = [
    { code: 'astray', count: p.astray, day: null, urgent: true },
    { code: 'faults', count: p.faults, day: null, urgent: true },
    { code: 'temporary', count: overdue ? p.temporary : 0, day: p.temporaryUntil, urgent: true },
    { code: 'creeping', count: p.creeping, day: p.creepsOn, urgent: p.creepsOn !== null && p.creepsOn <= today },
    { code: 'visit', count: isDue ? 1 : 0, day: p.visitDue, urgent: false },
    { code: 'findings', count: p.findings, day: null, urgent: false },
    { code: 'quotes', count: p.quotes, day: p.quotedOn, urgent: false },
    { code: 'temporaryOpen', count: overdue ? 0 : p.temporary, day: null, urgent: false },
  ]
  return asked.filter((a) => a.count > 0)
}
