import { getOrThrow, stationAt, terminalsInOrder } from '../site'
import type { ControllerId, Site, StationId, TerminalId } from '../site'

/**
 * Screws for stations behind one sequencer, so that where a controller runs its screws in their order, one with a valve
 * of its own runs between any two of them: each keeps its screw where it can, else takes the nearest that is free.
 * @param first the screw that stays as it is
 * @returns null where there are too few
 */
export function setApart(
  site: Site,
  controller: ControllerId,
  first: TerminalId,
  others: readonly StationId[],
): ReadonlyMap<StationId, TerminalId> | null {
  const order = terminalsInOrder(site, controller)
  const { terminals } = getOrThrow(site.controllers, controller)
  const own = others.map((id) => getOrThrow(site.stations, id).terminal)
  const stationOn = (terminal: TerminalId) => stationAt(site, { controller, terminal })?.[1] ?? null
  const isLive = (terminal: TerminalId) =>
    terminal !== first && !own.includes(terminal) && (stationOn(terminal)?.valves.length ?? 0) > 0
  const place = (terminal: TerminalId) => order.indexOf(terminal)
  const isApart = (a: TerminalId, b: TerminalId) =>
    order.slice(Math.min(place(a), place(b)) + 1, Math.max(place(a), place(b))).some(isLive)
  const free = order
    .filter((id) => terminals[id]!.role === 'station' && stationOn(id) === null)
    .sort((a, b) => Math.abs(place(a) - place(first)) - Math.abs(place(b) - place(first)))
  const chosen = new Map<StationId, TerminalId>()
  for (const [i, id] of others.entries()) {
    const taken = [first, ...chosen.values()]
    const next = [own[i]!, ...free].find((t) => !taken.includes(t) && taken.every((other) => isApart(t, other)))
    if (next === undefined) return null
    chosen.set(id, next)
  }
  return chosen
}
