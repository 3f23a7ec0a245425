import { byTag, commonOf, entries, getOrThrow, hangingOn, stationAt, wiringOf, type PlaceId, type Site } from '../site'

/** A tag for a box: what stands in it, with the terminal that runs it. */
export interface BoxTag {
  readonly place: PlaceId
  readonly tag: string
  readonly name: string
  readonly valves: readonly { readonly terminal: string; readonly name: string }[]
}

/** Every box that is no cabinet, by its tag. */
export function boxTags(site: Site): BoxTag[] {
  const valves = new Map<PlaceId, { terminal: string; name: string }[]>()
  const wiring = wiringOf(site)
  for (const [controller, record] of entries(site.controllers)) {
    const common = commonOf(site, controller)
    for (const [terminal, { coils, switchedBy }] of hangingOn(site, wiring, controller)) {
      if (terminal === common) continue
      const station = stationAt(site, { controller, terminal })?.[1]
      for (const device of new Set([...coils, ...(switchedBy.length > 0 ? (station?.valves ?? []) : [])])) {
        const { place, name, tag } = getOrThrow(site.devices, device)
        const { label, tag: screw } = record.terminals[terminal]!
        const said = station?.name || name || (tag ?? device)
        const here = valves.get(place) ?? []
        valves.set(place, [...here, { terminal: `${record.tag}:${label || screw}`, name: said }])
      }
    }
  }
  return entries(site.places)
    .filter(([, p]) => p.kind !== 'cabinet')
    .sort(([, a], [, b]) => byTag(a.tag, b.tag))
    .map(([place, { tag, name }]) => ({
      place,
      tag,
      name,
      valves: [...(valves.get(place) ?? [])].sort((a, b) => byTag(a.terminal, b.terminal)),
    }))
}
