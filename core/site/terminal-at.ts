import type { End } from './end'
import type { CableId, ControllerId, CoreId, TerminalId } from './ids'
import { entries } from './look-up'
import { netsOf } from './nets'
import type { Site } from './site'
import { terminalEnd, wiringOf, type WirePoint, type Wiring } from './wiring'

export interface TerminalOf {
  readonly controller: ControllerId
  readonly terminal: TerminalId
}

/** A core where it leaves a stop, by the stop's place in the cable's list. */
export interface Leaving {
  readonly cable: CableId
  readonly core: CoreId
  readonly from: number
}

/**
 * The terminal whose wire an end or a core is, through copper and joints as recorded; a common before others that are
 * joined to it. Null for none.
 */
export function terminalAt(site: Site, at: End | Leaving): TerminalOf | null {
  const wiring = wiringOf(site)
  const point =
    'kind' in at
      ? wiring.pointOf(at)
      : wiring.links.find(
          (l) => l.kind === 'stretch' && l.cable === at.cable && l.core === at.core && l.from === at.from,
        )?.a
  if (point === undefined) return null
  let byNet = made.get(wiring)
  if (!byNet) made.set(wiring, (byNet = terminalsByNet(site, wiring)))
  return byNet.get(netsOf(wiring).of(point)) ?? null
}

const made = new WeakMap<Wiring, ReadonlyMap<WirePoint, TerminalOf>>()

function terminalsByNet(site: Site, wiring: Wiring): ReadonlyMap<WirePoint, TerminalOf> {
  const byNet = new Map<WirePoint, TerminalOf>()
  const all = entries(site.controllers).flatMap(([controller, c]) =>
    entries(c.terminals).map(([terminal, { role }]) => ({ controller, terminal, role })),
  )
  for (const { controller, terminal, role } of all) {
    const net = netsOf(wiring).of(wiring.pointOf(terminalEnd(controller, terminal)))
    if (role === 'common' || !byNet.has(net)) byNet.set(net, { controller, terminal })
  }
  return byNet
}
