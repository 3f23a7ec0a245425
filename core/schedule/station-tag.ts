import { getOrThrow, type ControllerId, type Site } from '../site'
import type { StationOn } from './station'

/** What a station is called: its tag on the door, or its number. */
export function stationTag(site: Site, controller: ControllerId, { terminal, address }: StationOn): string {
  return address === null
    ? getOrThrow(getOrThrow(site.controllers, controller).terminals, terminal).tag
    : String(address)
}
