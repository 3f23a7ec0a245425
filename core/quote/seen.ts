import { isOnRecord, placeOf } from '../procedure'
import type { Facts } from '../record'
import type { SeenAt } from '../repair'
import { sightingsIn } from '../sightings'
import type { Site } from '../site'

/**
 * What was seen by eye and is to be mended still, by the place where it is; parts that hunts named are no such things.
 */
export const seenAt = (site: Site, facts: Facts): SeenAt[] =>
  sightingsIn(facts).flatMap(({ seen: { on, part, what }, state }): SeenAt[] => {
    if (part !== undefined || state === 'done' || state === 'declined' || !isOnRecord(site, on)) return []
    const place = placeOf(site, on)
    return place === null ? [] : [{ place, what }]
  })
