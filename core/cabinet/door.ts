import {
  byTag,
  commonOf,
  endKey,
  entries,
  hangingOn,
  getOrThrow,
  netsOf,
  terminalEnd,
  terminalsInOrder,
  wiringOf,
  type ControllerId,
  type DeviceId,
  type End,
  type PlaceId,
  type Site,
  type TerminalId,
  pointAt,
  stationAt,
} from '../site'
import { censusOf, seenOf, type Seen } from '../splice'

/** A terminal as it is found on the door. */
export interface DoorTerminal {
  readonly terminal: TerminalId
  readonly tag: string
  readonly label: string
  readonly role: 'common' | 'station' | 'master' | 'sensor' | 'path' | 'other'
  /** What is meant to run from it. */
  readonly name: string
  /** Conductors under its clamp. */
  readonly landed: readonly Seen[]
  /** Coils that the wiring on record brings to it. */
  readonly coils: readonly DeviceId[]
  /** Conductors that land here and whose other end nobody knows. */
  readonly unknown: number
}

/** Conductors in the cabinet that are under no clamp. */
export interface Unlanded {
  readonly end: End
  readonly seen: Seen
  readonly state: 'capped' | 'joined' | 'loose'
}

/** The door of a controller, terminal by terminal. */
export function doorOf(site: Site, controller: ControllerId): DoorTerminal[] {
  const { terminals } = getOrThrow(site.controllers, controller)
  const wiring = wiringOf(site)
  const hanging = hangingOn(site, wiring, controller)
  const common = commonOf(site, controller)
  const commonNet = common === null ? null : netsOf(wiring).of(wiring.pointOf(terminalEnd(controller, common)))
  const landings = new Map(
    Object.values(site.splices).flatMap((s) =>
      s.connector === 'terminal' ? s.ends.filter((e) => e.kind === 'terminal').map((e) => [endKey(e), s] as const) : [],
    ),
  )
  return terminalsInOrder(site, controller).map((terminal): DoorTerminal => {
    const t = terminals[terminal]!
    const station = stationAt(site, { controller, terminal })?.[1]
    const point = pointAt(site, { controller, terminal })?.[1]
    const landing = landings.get(endKey(terminalEnd(controller, terminal)))
    const landed = (landing?.ends ?? []).filter((e) => e.kind !== 'terminal').map((e) => seenOf(site, e))
    const at = hanging.get(terminal)
    const own =
      terminal === common || netsOf(wiring).of(wiring.pointOf(terminalEnd(controller, terminal))) === commonNet
    const nowhere = !own && landed.length > 0 && at?.coils.length === 0 && at.switchedBy.length === 0
    return {
      terminal,
      tag: t.tag,
      label: t.label,
      role: t.role,
      name: station?.name ?? point?.name ?? '',
      landed,
      coils: at?.coils ?? [],
      unknown: nowhere ? landed.length : 0,
    }
  })
}

/** Conductors that come into a place and are under no terminal: capped, joined among themselves, or loose. */
export function unlandedAt(site: Site, place: PlaceId): Unlanded[] {
  const holder = new Map(entries(site.splices).flatMap(([, s]) => s.ends.map((e) => [endKey(e), s] as const)))
  return entries(site.cables)
    .filter(([, c]) => c.kind !== 'jumper')
    .flatMap(([cable, c]) =>
      c.stops.flatMap((stop, i) =>
        stop.place !== place || (i > 0 && i < c.stops.length - 1)
          ? []
          : entries(c.cores).map(
              ([core]) => ({ kind: 'core', cable, core, stop: stop.id, side: i === 0 ? 'leaves' : 'arrives' }) as End,
            ),
      ),
    )
    .flatMap((end): Unlanded[] => {
      const splice = holder.get(endKey(end))
      if (splice?.connector === 'terminal') return []
      return [
        {
          end,
          seen: seenOf(site, end),
          state: splice === undefined ? 'loose' : splice.connector === 'cap' ? 'capped' : 'joined',
        },
      ]
    })
    .sort((a, b) => byTag(a.seen.from, b.seen.from))
}

/** Conductors of a cabinet by what is known of them: each counted once. */
export function inventoryOf(
  site: Site,
  controller: ControllerId,
): { landed: number; landedUnknown: number; capped: number; loose: number; terminalsFree: number } {
  const door = doorOf(site, controller)
  const { place } = getOrThrow(site.controllers, controller)
  const unlanded = unlandedAt(site, place)
  const unknownCores = new Set(
    censusOf(site, place)
      .filter((c) => c.use === 'unknown')
      .map((c) => `${c.cable} ${c.core}`),
  )
  return {
    landed: door.reduce((n, t) => n + t.landed.length, 0),
    landedUnknown: door.reduce((n, t) => n + t.unknown, 0),
    capped: unlanded.filter((u) => u.state === 'capped').length,
    loose: unlanded.filter(
      (u) => u.state === 'loose' && u.end.kind === 'core' && unknownCores.has(`${u.end.cable} ${u.end.core}`),
    ).length,
    terminalsFree: door.filter((t) => t.role === 'station' && t.landed.length === 0).length,
  }
}
