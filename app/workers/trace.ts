import { expose } from 'comlink'
import type { Facts } from '../../core/record'
import type { PlaceId, Site } from '../../core/site'
import {
  boxEvidence,
  findsAlong,
  marksOf,
  searchArea,
  traceSoFar,
  type BoxEvidence,
  type Find,
  type SearchArea,
} from '../../core/trace'

const reckoned = new Map<string, { readonly key: string; readonly finds: Find[] }>()
/** What was met along the readings of a job; reckoned anew only where one was added or taken back. */
function findsOf(site: Site, facts: Facts, job: string): Find[] {
  const { traces } = facts.jobs[job]!
  if (!traces) return []
  const { along } = traceSoFar(site, traces, marksOf(facts, job))
  const key = JSON.stringify(along)
  const known = reckoned.get(job)
  if (known?.key === key) return known.finds
  const finds = findsAlong(along)
  reckoned.set(job, { key, finds })
  return finds
}

const work = {
  /** What was met along the readings of a job. */
  finds: findsOf,
  /** Where a box may be, from everything on record that speaks of it. */
  area(site: Site, facts: Facts, box: PlaceId): { evidence: BoxEvidence; area: SearchArea | null } {
    const evidence = boxEvidence(site, facts, box, (job) => findsOf(site, facts, job))
    return { evidence, area: searchArea(evidence) }
  },
}
export type TraceWork = typeof work

expose(work)
