import { accepted, refusal, refused, type Outcome } from '../refusal'
import {
  entries,
  hangingOn,
  lookUp,
  getOrThrow,
  terminalEnd,
  wiringOf,
  type ControllerId,
  type DeviceId,
  type Site,
  type TerminalId,
} from '../site'
import type { Edit } from './engine'
import type { Face } from './impedance'
import type { Conditions, Powered } from './powered'

export interface TerminalAt {
  readonly controller: ControllerId
  readonly terminal: TerminalId
}
/** What a terminal is told to be instead of what its place in the order would make it. */
export type Told = Face | 'off'

/** Which terminals are live, and the face of every coil that hangs on one of them. */
export interface Running {
  readonly live: readonly TerminalAt[]
  readonly faces: ReadonlyMap<DeviceId, Face>
}

/**
 * What runs when these stations are on: all hold but the last, which starts. The master terminal of their points of
 * connection is live with them; its coils start with the station unless the controller brings the master in first.
 * `told` overrides a terminal's face, or leaves it off. A sequencer passes its face on to its coils.
 */
export function runningOf(
  site: Site,
  on: readonly TerminalAt[],
  told: readonly (TerminalAt & { readonly as: Told })[] = [],
): Outcome<Running> {
  const saidOf = (t: TerminalAt) => told.find((s) => s.controller === t.controller && s.terminal === t.terminal)?.as
  const faces = new Map<DeviceId, Face>()
  const live: TerminalAt[] = []
  const wiring = wiringOf(site)
  const energise = (t: TerminalAt, usual: Face) => {
    const said = saidOf(t) ?? usual
    if (said === 'off' || live.some((l) => l.controller === t.controller && l.terminal === t.terminal)) return
    live.push(t)
    const hanging = hangingOn(site, wiring, t.controller).get(t.terminal)
    const behind = (hanging?.switchedBy.length ?? 0) > 0 ? stationsAt(site, t).flatMap((s) => s.valves) : []
    for (const device of [...(hanging?.coils ?? []), ...behind]) faces.set(device, said)
  }
  for (const t of on) {
    const role = lookUp(getOrThrow(site.controllers, t.controller).terminals, t.terminal)?.role
    if (role === 'common') return refused(refusal('common_is_no_output', ['--on']))
  }
  on.forEach((t, i) => energise(t, i === on.length - 1 ? 'inrush' : 'holding'))
  for (const t of on)
    for (const station of stationsAt(site, t)) {
      const at =
        station.pointOfConnection === null || !station.withMaster
          ? null
          : getOrThrow(site.pointsOfConnection, station.pointOfConnection).terminal
      if (at) energise(at, getOrThrow(site.controllers, at.controller).masterFirst ? 'holding' : 'inrush')
    }
  for (const t of told) if (t.as !== 'off') energise(t, t.as)
  return accepted({ live, faces })
}

const stationsAt = (site: Site, t: TerminalAt) =>
  entries(site.stations)
    .filter(([, s]) => s.address === null && s.controller === t.controller && s.terminal === t.terminal)
    .map(([, s]) => s)

/** The faces of what runs as conditions of the network. */
export const conditionsFor = (running: Running, given: Omit<Conditions, 'faces' | 'turns'>): Conditions => ({
  ...given,
  faces: running.faces,
  turns: new Map(),
})

/**
 * The closings of what is live, as edits of the powered network. Terminals of a controller without a common close on
 * nothing.
 */
export function closings(powered: Powered, live: readonly TerminalAt[]): Edit[] {
  return live.flatMap((t): Edit[] => {
    const source = powered.sources.find((s) => s.controller === t.controller)
    const node = powered.nodeOf.get(powered.wiring.pointOf(terminalEnd(t.controller, t.terminal)))
    return source && node !== undefined ? [{ kind: 'close', node, hot: source.hot }] : []
  })
}
