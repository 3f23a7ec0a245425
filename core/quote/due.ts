import { controllerFor } from '../procedure'
import { partKey, targetOfPart, type Part } from '../record'
import { isPartOnRecord, knownBad, repairsFor, USUAL_FIGURES, type RepairFigures, type RepairOption } from '../repair'
import type { ControllerId, Site } from '../site'

/** A part that is known to be bad, with all that can be done about it, the first of the possible the cheapest. */
export interface Due {
  readonly where: Part
  readonly controller: ControllerId
  readonly options: readonly RepairOption[]
}

/**
 * Everything that the record knows to be bad, each with its repairs; and parts that were named besides.
 * @param named as hunts named them; those that are known already count once, those on record no more not at all
 */
export function dueOn(
  site: Site,
  today: string,
  figures: RepairFigures = USUAL_FIGURES,
  named: readonly Part[] = [],
): Due[] {
  const known = knownBad(site)
  const keys = new Set(known.map(({ where }) => partKey(where)))
  const further = named.flatMap((where) => {
    if (keys.has(partKey(where)) || !isPartOnRecord(site, where)) return []
    keys.add(partKey(where))
    return [{ where, without: site }]
  })
  return [...known, ...further].flatMap(({ where, without }) => {
    const controller = 'controller' in where ? where.controller : controllerFor(without, targetOfPart(where))
    return controller === null
      ? []
      : [{ where, controller, options: repairsFor(without, controller, where, today, figures, site) }]
  })
}
