import { entries, netsOf, pathOf, wiringOf, type ControllerId, type End, type PlaceId, type Site } from '../site'

/** The first tag of a letter and a number that none of these has. */
export function freeTag(records: Readonly<Record<string, { readonly tag: string | null }>>, letter: string): string {
  const tags = new Set(Object.values(records).map((r) => r.tag))
  let n = 1
  while (tags.has(`${letter}${n}`)) n++
  return `${letter}${n}`
}

/** An end of a leg of the path at a place, by which more is joined to it; null where the path has no joint there. */
export function legEndAt(site: Site, controller: ControllerId, place: PlaceId, side: 0 | 1): End | null {
  const path = pathOf(site, controller)
  if (!path) return null
  const wiring = wiringOf(site)
  const nets = netsOf(wiring)
  for (const [, splice] of entries(site.splices)) {
    if (splice.place !== place) continue
    const end = splice.ends.find((e) => e.kind === 'core' && path.nets[side].has(nets.of(wiring.pointOf(e))))
    if (end) return end
  }
  return null
}
