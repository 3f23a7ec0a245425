import { DisjointSets } from './disjoint-sets'
import type { End } from './end'
import { endKey } from './end-key'
import { entries, lookUp } from './look-up'
import { portsOf } from './ports'
import type { ControllerId, DeviceId, TerminalId } from './ids'
import type { Site } from './site'
import { terminalEnd, type WirePoint, type Wiring } from './wiring'

/** Points that are joined, by the point that names their net. */
export type Nets = DisjointSets<WirePoint>

const netsMade = new WeakMap<Wiring, Nets>()

/** Points that copper and joints connect, coils left out. As wired: what is broken still counts as joined. */
export function netsOf(wiring: Wiring): Nets {
  const made = netsMade.get(wiring)
  if (made) return made
  const nets = new DisjointSets<WirePoint>()
  for (const link of wiring.links) if (link.kind !== 'coil') nets.join(link.a, link.b)
  netsMade.set(wiring, nets)
  return nets
}

/** The id of the controller's common terminal, or null. */
export function commonOf(site: Site, controller: ControllerId): TerminalId | null {
  return (
    entries(lookUp(site.controllers, controller)?.terminals ?? {}).find(([, t]) => t.role === 'common')?.[0] ?? null
  )
}

/** What hangs on a terminal according to the wiring on record. */
export interface Hanging {
  /** Coils and relays with one side on the terminal's lead and the other on the common. */
  readonly coils: readonly DeviceId[]
  /** A decoder or sequencer fed by the lead: its coils cannot be read from the terminal. */
  readonly switchedBy: readonly DeviceId[]
  /** Ends on the lead whose partner is not on record. */
  readonly loose: readonly End[]
  /** Anything but the bare terminal. */
  readonly landed: boolean
}

/** The devices of every terminal of a controller, from the wiring alone. */
export function hangingOn(site: Site, wiring: Wiring, controller: ControllerId): ReadonlyMap<TerminalId, Hanging> {
  if (!hangingMade.has(wiring)) hangingMade.set(wiring, new Map())
  const made = hangingMade.get(wiring)!
  if (!made.has(controller)) made.set(controller, readHanging(site, wiring, controller))
  return made.get(controller)!
}

const hangingMade = new WeakMap<Wiring, Map<ControllerId, ReadonlyMap<TerminalId, Hanging>>>()

function readHanging(site: Site, wiring: Wiring, controller: ControllerId): ReadonlyMap<TerminalId, Hanging> {
  const nets = netsOf(wiring)
  const common = commonOf(site, controller)
  const commonNet = common === null ? null : nets.of(wiring.pointOf(terminalEnd(controller, common)))
  const held = new Set(entries(site.splices).flatMap(([, s]) => s.ends.map(endKey)))
  const inNet = new Map<WirePoint, { coils: DeviceId[]; switchedBy: DeviceId[]; loose: End[]; points: number }>()
  const netAt = (point: WirePoint) => {
    const net = nets.of(point)
    if (!inNet.has(net)) inNet.set(net, { coils: [], switchedBy: [], loose: [], points: 0 })
    return inNet.get(net)!
  }
  for (const link of wiring.links) {
    if (link.kind === 'stretch') {
      netAt(link.a).points++
      for (const end of endsOfStretch(site, link))
        if (!held.has(endKey(end))) netAt(wiring.pointOf(end)).loose.push(end)
    }
    if (link.kind !== 'coil') continue
    const sides = [nets.of(link.a), nets.of(link.b)]
    sides.forEach((side, i) => {
      if (side !== commonNet && sides[1 - i] === commonNet) netAt(side).coils.push(link.device)
    })
  }
  for (const [id, device] of entries(site.devices)) {
    if (device.kind !== 'decoder' && device.kind !== 'sequencer') continue
    for (const port of portsOf(device)) {
      if (port !== 'common') netAt(wiring.pointOf({ kind: 'port', device: id, port })).switchedBy.push(id)
    }
  }
  const none = { coils: [], switchedBy: [], loose: [], points: 0 }
  return new Map(
    entries(lookUp(site.controllers, controller)?.terminals ?? {}).map(([id]) => {
      const end = terminalEnd(controller, id)
      const found = inNet.get(nets.of(wiring.pointOf(end))) ?? none
      return [
        id,
        {
          coils: found.coils,
          switchedBy: [...new Set(found.switchedBy)],
          loose: found.loose,
          landed: held.has(endKey(end)),
        },
      ]
    }),
  )
}

function endsOfStretch(site: Site, link: { cable: string; core: string; from: number; to: number }): End[] {
  const cable = site.cables[link.cable as keyof typeof site.cables]!
  const core = cable.cores[link.core as keyof typeof cable.cores]!
  const ends: End[] = []
  const isEnd = (i: number) => i === 0 || i === cable.stops.length - 1 || core.cutAt.includes(cable.stops[i]!.id)
  if (isEnd(link.from))
    ends.push({
      kind: 'core',
      cable: link.cable,
      core: link.core,
      stop: cable.stops[link.from]!.id,
      side: 'leaves',
    } as End)
  if (isEnd(link.to))
    ends.push({
      kind: 'core',
      cable: link.cable,
      core: link.core,
      stop: cable.stops[link.to]!.id,
      side: 'arrives',
    } as End)
  return ends
}
