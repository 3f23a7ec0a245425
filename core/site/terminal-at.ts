import type { ControllerId, TerminalId } from './ids'
import { entries } from './look-up'
import { netsOf } from './nets'
import type { Site } from './site'
import { terminalEnd, type WirePoint, type Wiring } from './wiring'

export interface TerminalOf { readonly controller: ControllerId; readonly terminal: TerminalId }

/** The terminal on whose wire a point lies, through copper and joints as recorded; a common before others that are joined to it. Null for none. */
export function terminalAt(site: Site, wiring: Wiring, point: WirePoint): TerminalOf | null {
  let byNet = made.get(wiring)
  if (!byNet) made.set(wiring, (byNet = terminalsByNet(site, wiring)))
  return byNet.get(netsOf(wiring).of(point)) ?? null
}

const made = new WeakMap<Wiring, ReadonlyMap<WirePoint, TerminalOf>>()

function terminalsByNet(site: Site, wiring: Wiring): ReadonlyMap<WirePoint, TerminalOf> {
  const byNet = new Map<WirePoint, TerminalOf>()
  const all = entries(site.controllers).flatMap(([controller, c]) => entries(c.terminals).map(([terminal, { role }]) => ({ controller, terminal, role })))
  for (const { controller, terminal, role } of all) {
    const net = netsOf(wiring).of(wiring.pointOf(terminalEnd(controller, terminal)))
    if (role === 'common' || !byNet.has(net)) byNet.set(net, { controller, terminal })
  }
  return byNet
}
