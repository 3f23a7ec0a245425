import type { TerminalId } from '../site'

/** A station of a controller: a screw, or a number on its path. */
export interface StationOn {
  readonly terminal: TerminalId
  readonly address: number | null
}
export const stationKey = ({ terminal, address }: StationOn): string =>
  address === null ? terminal : `${terminal}#${address}`
