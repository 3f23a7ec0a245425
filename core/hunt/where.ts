import { partKey, type Part, type RunPart } from '../record'
import { lookUp, getOrThrow, stopIndex, type PlaceId, type Site } from '../site'

/** The places at which a part lies: one, or the two ends of a run. */
export function placesOf(site: Site, part: Part): PlaceId[] {
  switch (part.kind) {
    case 'joint':
      return [getOrThrow(site.splices, part.splice).place]
    case 'run':
    case 'touch': {
      const cable = getOrThrow(site.cables, part.cable)
      return [part.from, part.to].map((stop) => cable.stops[stopIndex(cable, stop)]!.place)
    }
    case 'coil':
    case 'valve':
      return [getOrThrow(site.devices, part.device).place]
    default:
      return [getOrThrow(site.controllers, part.controller).place]
  }
}

type Stretch = Pick<RunPart, 'cable' | 'from' | 'to'>

/**
 * Whether a part that was named once holds another of today: the same one, or a run that has been opened on its way
 * since, each piece of which lies within it.
 */
export function holdsPart(site: Site, named: Part, today: Part): boolean {
  if (partKey(named) === partKey(today)) return true
  if (named.kind === 'run' && today.kind === 'run') return named.core === today.core && liesWithin(site, named, today)
  if (named.kind === 'touch' && today.kind === 'touch') {
    const cores = (p: typeof named) => [p.core, p.other].sort().join(' ')
    return cores(named) === cores(today) && liesWithin(site, named, today)
  }
  return false
}

function liesWithin(site: Site, outer: Stretch, inner: Stretch): boolean {
  const cable = lookUp(site.cables, outer.cable)
  if (!cable || outer.cable !== inner.cable) return false
  const [from, to] = [stopIndex(cable, outer.from), stopIndex(cable, outer.to)]
  return from >= 0 && to >= 0 && from <= stopIndex(cable, inner.from) && stopIndex(cable, inner.to) <= to
}
