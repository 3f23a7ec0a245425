import { expose } from 'comlink'
import { dueOn, type Due } from '../../core/quote'
import type { Part } from '../../core/record'
import {
  isPartOnRecord,
  nearby,
  placesOf,
  repairsFor,
  USUAL_FIGURES,
  type Nearby,
  type RepairOption,
} from '../../core/repair'
import type { ControllerId, Site } from '../../core/site'

/** All that can be done about a part, and what else is due at its places. */
export interface RepairsSeen {
  readonly options: readonly RepairOption[]
  readonly nearby: readonly Nearby[]
}

const work = {
  /** Everything that the record knows to be bad, with its repairs. */
  due: (site: Site, today: string): Due[] => dueOn(site, today),
  see(site: Site, controller: ControllerId, where: Part, today: string): RepairsSeen {
    // What was mended may be another joint by now.
    if (!isPartOnRecord(site, where)) return { options: [], nearby: [] }
    const options = repairsFor(site, controller, where, today)
    const made = where.kind === 'joint' ? (site.splices[where.splice]?.made?.value ?? null) : null
    return { options, nearby: nearby(site, placesOf(site, where, options), made, today, USUAL_FIGURES) }
  },
}
export type RepairWork = typeof work

expose(work)
