import { expose } from 'comlink'
import { dueOn, figuresBy, type Due } from '../../core/quote'
import type { Part, PriceList } from '../../core/record'
import {
  isPartOnRecord,
  nearby,
  placesOf,
  repairsFor,
  type Nearby,
  type RepairOption,
  type SeenAt,
} from '../../core/repair'
import type { ControllerId, Site } from '../../core/site'

/** All that can be done about a part, and what else is due at its places. */
export interface RepairsSeen {
  readonly options: readonly RepairOption[]
  readonly nearby: readonly Nearby[]
}

const work = {
  /** Everything that the record knows to be bad, and what hunts named, with its repairs. */
  due: (site: Site, today: string, prices: PriceList | null, named: readonly Part[]): Due[] =>
    dueOn(site, today, figuresBy(prices), named),
  see(
    site: Site,
    controller: ControllerId,
    where: Part,
    today: string,
    prices: PriceList | null,
    seen: readonly SeenAt[],
  ): RepairsSeen {
    // What was mended may be another joint by now.
    if (!isPartOnRecord(site, where)) return { options: [], nearby: [] }
    const figures = figuresBy(prices)
    const options = repairsFor(site, controller, where, today, figures)
    const made = where.kind === 'joint' ? (site.splices[where.splice]?.made?.value ?? null) : null
    return { options, nearby: nearby(site, placesOf(site, where, options), made, today, figures, seen) }
  },
}
export type RepairWork = typeof work

expose(work)
