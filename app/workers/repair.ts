import { expose } from 'comlink'
import type { Part } from '../../core/record'
import { nearby, placesOf, repairsFor, USUAL_FIGURES, type Nearby, type RepairOption } from '../../core/repair'
import type { ControllerId, Site } from '../../core/site'

/** All that can be done about a part, and what else is due at its places. */
export interface RepairsSeen {
  readonly options: readonly RepairOption[]
  readonly nearby: readonly Nearby[]
}

const work = {
  see(site: Site, controller: ControllerId, where: Part, today: string): RepairsSeen {
    const options = repairsFor(site, controller, where, today)
    const made = where.kind === 'joint' ? (site.splices[where.splice]?.made?.value ?? null) : null
    return { options, nearby: nearby(site, placesOf(site, where, options), made, today, USUAL_FIGURES) }
  },
}
export type RepairWork = typeof work

expose(work)
