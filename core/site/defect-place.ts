import type { Defect } from './defect'
import type { PlaceId } from './ids'
import { placeOfEnd } from './invariants'
import { lookUp } from './look-up'
import type { Site } from './site'
import { stopIndex } from './stretch'

/** Where a defect lies; null of one whose part is on record no more, which counts for nothing. */
export function placeOfDefect(site: Site, defect: Defect): PlaceId | null {
  switch (defect.kind) {
    case 'grip':
    case 'leak':
      return placeOfEnd(site, defect.end)
    case 'bare': {
      const of = lookUp(site.controllers, defect.controller)
      return of && lookUp(of.terminals, defect.terminal) ? of.place : null
    }
    case 'series':
    case 'touch': {
      const cable = lookUp(site.cables, defect.cable)
      const cores = defect.kind === 'touch' ? [defect.core, defect.other] : [defect.core]
      const at = cable ? stopIndex(cable, defect.from) : -1
      const leaves = cable && at >= 0 && at < cable.stops.length - 1 && cores.every((c) => lookUp(cable.cores, c))
      return leaves ? cable.stops[at]!.place : null
    }
  }
}
