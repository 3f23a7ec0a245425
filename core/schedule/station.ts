import {
  entries,
  terminalsInOrder,
  type ControllerId,
  type Site,
  type Station,
  type StationId,
  type TerminalId,
} from '../site'

/** A station of a controller: a screw, or a number on its path. */
export interface StationOn {
  readonly terminal: TerminalId
  readonly address: number | null
}
export const stationKey = ({ terminal, address }: StationOn): string =>
  address === null ? terminal : `${terminal}#${address}`

/** The stations of a controller in the order of its door, then by number. */
export function stationsInOrder(site: Site, controller: ControllerId): [StationId, Station][] {
  const order = terminalsInOrder(site, controller)
  return entries(site.stations)
    .filter(([, s]) => s.controller === controller)
    .sort(
      ([, a], [, b]) => order.indexOf(a.terminal) - order.indexOf(b.terminal) || (a.address ?? 0) - (b.address ?? 0),
    )
}
