import { coreEnd, create, cutAt, freeId, join, jointOf, part, type Work } from '../plan'
import { getOrThrow, type CableId, type CoreId, type End, type PlaceId, type Site } from '../site'
import type { Way } from './lead'

export function cap(work: Work, place: PlaceId, end: End): void {
  if (jointOf(work.site, end) !== null) return
  create(work, 'splices', freeId(work.site, 'splices', `${getOrThrow(work.site.places, place).tag}-cap`), {
    place,
    connector: 'cap',
    ends: [end],
  })
}

/** The ends of a core at a stop: on the side that comes from the controller, and on the one that goes on. */
const endsAt = (site: Site, cable: CableId, core: CoreId, stop: number) => {
  const { stops } = getOrThrow(site.cables, cable)
  const { id, place } = stops[stop]!
  return {
    place,
    arrives: stop > 0 ? coreEnd(cable, core, id, 'arrives') : null,
    leaves: stop < stops.length - 1 ? coreEnd(cable, core, id, 'leaves') : null,
  }
}

/** Makes an end of a core come out at a stop where it passes uncut: the other side stays as it was joined. */
function bringOut(work: Work, { cable, core }: Pick<Way, 'cable' | 'core'>, stop: number): void {
  cutAt(work, cable, core, getOrThrow(work.site.cables, cable).stops[stop]!.id)
}

/** Takes one stretch of a core out of use, capped at both ends, and puts another conductor into its joints. */
export function replaceStretch(work: Work, way: Way, near: End, far: End): void {
  const { cable, core, from, to } = way
  for (const stop of [from, to]) bringOut(work, way, stop)
  const [at, end] = [endsAt(work.site, cable, core, from), endsAt(work.site, cable, core, to)]
  // What passes uncut goes on by the other conductor.
  exchange(work, at.place, at.leaves!, near, at.arrives)
  exchange(work, end.place, end.arrives!, far, end.leaves)
}

function exchange(work: Work, place: PlaceId, old: End, next: End, onward: End | null): void {
  const isJoined = jointOf(work.site, old) !== null
  join(work, place, isJoined ? [old, next] : [...(onward && jointOf(work.site, onward) === null ? [onward] : []), next])
  part(work, old)
  cap(work, place, old)
}

/** A spare brought out at two stops, capped beyond them: its ends there. */
export function broughtOut(work: Work, cable: CableId, core: CoreId, from: number, to: number): [near: End, far: End] {
  for (const stop of [from, to]) bringOut(work, { cable, core }, stop)
  for (const stop of [from, to])
    for (const side of ['arrives', 'leaves'] as const) {
      const { place, ...ends } = endsAt(work.site, cable, core, stop)
      const end = ends[side]
      if (end) cap(work, place, end)
    }
  return [endsAt(work.site, cable, core, from).leaves!, endsAt(work.site, cable, core, to).arrives!]
}
