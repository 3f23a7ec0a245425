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

/** The station that a terminal runs, with its id; null where it runs none. */
export const stationAt = (site: Site, at: TerminalAt): readonly [StationId, Station] | null =>
  entries(site.stations).find(([, s]) => isAt(s, at)) ?? null

/** The point of connection whose master terminal this is, with its id; null where it is none's. */
export const pointAt = (site: Site, at: TerminalAt): readonly [PointOfConnectionId, PointOfConnection] | null =>
  entries(site.pointsOfConnection).find(([, p]) => isAt(p.terminal, at)) ?? null

/** The station at the terminal that is labelled so, as `A:3`. */
export function stationLabelled(site: Site, label: string): Station | null {
  const [tag, terminalTag] = label.split(':')
  const found = Object.values(site.stations).find((s) => {
    const controller = lookUp(site.controllers, s.controller)
    return controller?.tag === tag && controller?.terminals[s.terminal]?.tag === terminalTag
  })
  return found ?? null
}
