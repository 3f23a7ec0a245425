import { controllerFor } from '../procedure'
import { targetOfPart, type Part } from '../record'
import { knownBad, repairsFor, USUAL_FIGURES, type RepairFigures, type RepairOption } from '../repair'
import type { ControllerId, Site } from '../site'

/** A part that is known to be bad, with all that can be done about it, the first of the possible the cheapest. */
export interface Due {
  readonly where: Part
  readonly controller: ControllerId
  readonly options: readonly RepairOption[]
}

/** Everything that the record knows to be bad, each with its repairs. */
export const dueOn = (site: Site, today: string, figures: RepairFigures = USUAL_FIGURES): Due[] =>
  knownBad(site).flatMap(({ where, without }) => {
    const controller = 'controller' in where ? where.controller : controllerFor(without, targetOfPart(where))
    return controller === null
      ? []
      : [{ where, controller, options: repairsFor(without, controller, where, today, figures, site) }]
  })
