import { coreEnd, jointOf } from '../plan'
import { getOrThrow, type CableId, type CoreId, type Site } from '../site'

/**
 * Whether a stretch of a core carries anything: the conductor that it is a part of, from cut to cut, is joined at both
 * of its ends. A spare is not, nor is one that was taken out of use and capped.
 * @param from the number of its first stop along the cable
 */
export function isInUse(site: Site, id: CableId, core: CoreId, from: number): boolean {
  const { stops, cores } = getOrThrow(site.cables, id)
  const { cutAt } = getOrThrow(cores, core)
  const isCut = (i: number) => i === 0 || i === stops.length - 1 || cutAt.includes(stops[i]!.id)
  let [near, far] = [from, from + 1]
  while (!isCut(near)) near--
  while (!isCut(far)) far++
  return (
    [
      [near, 'leaves'],
      [far, 'arrives'],
    ] as const
  ).every(([stop, side]) => {
    const joint = jointOf(site, coreEnd(id, core, stops[stop]!.id, side))
    return joint !== null && getOrThrow(site.splices, joint).connector !== 'cap'
  })
}
