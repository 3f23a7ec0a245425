import type { Part } from '../record'
import { entries, getOrThrow, lookUp, type PlaceId, type Site } from '../site'
import type { RepairOption } from './repair'

/** The boxes that are open for a repair: of a joint or a device its own, else those in which the first option joins. */
export function placesOf(site: Site, where: Part, options: readonly RepairOption[]): PlaceId[] {
  if (where.kind === 'joint') return [getOrThrow(site.splices, where.splice).place]
  if (where.kind === 'coil' || where.kind === 'valve') return [getOrThrow(site.devices, where.device).place]
  const [first] = options
  if (!first?.possible) return []
  const changed = entries(first.tried.after.site.splices).filter(
    ([id, s]) => JSON.stringify(s.ends) !== JSON.stringify(lookUp(site.splices, id)?.ends),
  )
  return [...new Set(changed.map(([, s]) => s.place))].filter((p) => lookUp(site.places, p) !== undefined)
}
