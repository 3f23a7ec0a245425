import type { ControllerId, PointOfConnectionId, StationId, TerminalId } from './ids'
import { entries, lookUp } from './look-up'
import type { Site } from './site'
import type { PointOfConnection, Station } from './station'

/** A screw of a controller. */
export interface TerminalAt {
  readonly controller: ControllerId
  readonly terminal: TerminalId
}
const isAt = (one: TerminalAt | null, { controller, terminal }: TerminalAt) =>
  one !== null && one.controller === controller && one.terminal === terminal

/** The station that a terminal runs, with its id; null where it runs none, or a path with many. */
export const stationAt = (site: Site, at: TerminalAt): readonly [StationId, Station] | null =>
  entries(site.stations).find(([, s]) => s.address === null && isAt(s, at)) ?? null

/** The stations of a controller that have a screw of their own, not a number on its path. */
export const stationsOnScrews = (site: Site, controller: ControllerId): Station[] =>
  Object.values(site.stations).filter((s) => s.controller === controller && s.address === null)

/** The stations on a controller’s path, by number. */
export const stationsByNumber = (site: Site, controller: ControllerId): (Station & { readonly address: number })[] =>
  Object.values(site.stations)
    .flatMap((s) => (s.controller === controller && s.address !== null ? [{ ...s, address: s.address }] : []))
    .sort((a, b) => a.address - b.address)

/** The point of connection whose master terminal this is, with its id; null where it is none's. */
export const pointAt = (site: Site, at: TerminalAt): readonly [PointOfConnectionId, PointOfConnection] | null =>
  entries(site.pointsOfConnection).find(([, p]) => isAt(p.terminal, at)) ?? null

/** The station at the terminal that is labelled so, as `A:3`. */
export function stationLabelled(site: Site, label: string): Station | null {
  const [tag, terminalTag] = label.split(':')
  const found = Object.values(site.stations).find((s) => {
    const controller = lookUp(site.controllers, s.controller)
    const label = s.address === null ? controller?.terminals[s.terminal]?.tag : String(s.address)
    return controller?.tag === tag && label === terminalTag
  })
  return found ?? null
}
