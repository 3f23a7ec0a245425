import {
  byTag,
  commonOf,
  entries,
  getOrThrow,
  hangingOn,
  stationAt,
  stationsByNumber,
  wiringOf,
  type DeviceId,
  type PlaceId,
  type Site,
} from '../site'

/** A tag for a box: what stands in it, with the terminal or the number on a path that runs it. */
export interface BoxTag {
  readonly place: PlaceId
  readonly tag: string
  readonly name: string
  readonly valves: readonly { readonly terminal: string; readonly name: string }[]
}

/** Every box that is no cabinet, by its tag. */
export function boxTags(site: Site): BoxTag[] {
  const valves = new Map<PlaceId, { terminal: string; name: string }[]>()
  const stands = (device: DeviceId, terminal: string, station: string) => {
    const { place, name, tag } = getOrThrow(site.devices, device)
    valves.set(place, [...(valves.get(place) ?? []), { terminal, name: station || name || (tag ?? device) }])
  }
  const wiring = wiringOf(site)
  for (const [controller, record] of entries(site.controllers)) {
    const common = commonOf(site, controller)
    for (const [terminal, { coils, switchedBy }] of hangingOn(site, wiring, controller)) {
      if (terminal === common) continue
      const station = stationAt(site, { controller, terminal })?.[1]
      const { label, tag: screw } = record.terminals[terminal]!
      for (const device of new Set([...coils, ...(switchedBy.length > 0 ? (station?.valves ?? []) : [])]))
        stands(device, `${record.tag}:${label || screw}`, station?.name ?? '')
    }
    for (const { address, name, valves: own } of stationsByNumber(site, controller))
      for (const device of own) stands(device, `${record.tag}:n${address}`, name)
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
