import { entries, isLaid, type ControllerId, type DeviceId, type Site, type Splice, type TerminalId } from '../site'

/** What is still to be bought, what is there already, or the property as it is when all is built. */
export const MATERIAL_PARTS = ['to_buy', 'there', 'all'] as const
export type MaterialPart = (typeof MATERIAL_PARTS)[number]

/** A terminal that was read at some time: what hangs on it is there. */
export interface ReadTerminal {
  readonly controller: ControllerId
  readonly terminal: TerminalId
}

/**
 * The property with this part of its cables, devices and joints alone, for counting: its joints may name what is not
 * among them. A cable is there if it was laid or seen; a device if it has a date or its terminal was ever read; a joint
 * if its devices are there and it was made on a day, or all else in it is there too. What has nothing of this is to be
 * bought: rather a connector too many in the van than one too few.
 */
export function materialPart(site: Site, part: MaterialPart, read: readonly ReadTerminal[]): Site {
  if (part === 'all') return site
  const devices = devicesThere(site, read)
  const cables = new Set(entries(site.cables).flatMap(([id, c]) => (isLaid(c) ? [id] : [])))
  const isThere = ({ made, ends }: Splice) =>
    ends.every((e) => e.kind !== 'port' || devices.has(e.device)) &&
    (made !== null || ends.every((e) => e.kind !== 'core' || cables.has(e.cable)))
  const wanted = part === 'there'
  const only = <T>(of: Readonly<Record<string, T>>, there: (id: string, record: T) => boolean) =>
    Object.fromEntries(Object.entries(of).filter(([id, record]) => there(id, record) === wanted))
  return {
    ...site,
    cables: only(site.cables, (id) => cables.has(id as never)),
    devices: only(site.devices, (id) => devices.has(id as never)),
    splices: only(site.splices, (_, splice) => isThere(splice)),
  }
}

function devicesThere(site: Site, read: readonly ReadTerminal[]): Set<DeviceId> {
  const found = new Set(entries(site.devices).flatMap(([id, d]) => (d.installed !== null ? [id] : [])))
  const at = new Set(read.map((r) => `${r.controller} ${r.terminal}`))
  const isRead = (terminal: ReadTerminal | null) => terminal && at.has(`${terminal.controller} ${terminal.terminal}`)
  for (const station of Object.values(site.stations))
    if (isRead(station)) for (const valve of station.valves) found.add(valve)
  for (const { terminal, masterValve, pumpRelay } of Object.values(site.pointsOfConnection))
    if (isRead(terminal)) for (const d of [masterValve, pumpRelay]) if (d) found.add(d)
  return found
}
