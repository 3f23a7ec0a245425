import {
  entries,
  lookUp,
  type ControllerId,
  type DeviceId,
  type Site,
  type TerminalId,
  type Wiring,
  pointAt,
  stationAt,
} from '../../core/site'
import type { FieldFault } from '../fault'
import type { World } from '../world'
import type { Drawn } from './drawn'

/** A property as it is in the ground: its record, how its parts differ from their sheets, and what is wrong. */
export interface Real {
  readonly site: Site
  readonly wiring: Wiring
  readonly faults: readonly FieldFault[]
  readonly drawn: Drawn
  readonly world: World
  readonly ground_C: number
}
/** A terminal of a controller. */
export interface Screw {
  readonly controller: ControllerId
  readonly terminal: TerminalId
}

/** Whether something is wrong with the whole controller. */
export const wrongAt = (
  { faults }: Real,
  controller: ControllerId,
  kinds: readonly ('supply' | 'sensor' | 'water')[],
): boolean =>
  faults.some(
    (f) =>
      (f.kind === 'supply' || f.kind === 'sensor' || f.kind === 'water') &&
      kinds.includes(f.kind) &&
      f.controller === controller,
  )
export const outputDead = ({ faults }: Real, { controller, terminal }: Screw): boolean =>
  faults.some((f) => f.kind === 'terminal' && f.controller === controller && f.terminal === terminal)
export const stuck = ({ faults }: Real, kind: 'stuck-shut' | 'stuck-open', device: DeviceId): boolean =>
  faults.some((f) => f.kind === kind && f.device === device)
/** A coil that pulls no plunger, whatever it is given. */
export const coilDead = ({ faults }: Real, device: DeviceId): boolean =>
  faults.some((f) => (f.kind === 'coil-open' || f.kind === 'coil-short' || f.kind === 'coil-dc') && f.device === device)

/** The terminal whose wire really lies under a screw; null for a bare one. */
export function wireAt({ faults }: Real, { controller, terminal }: Screw): TerminalId | null {
  for (const f of faults) {
    if ((f.kind !== 'swap' && f.kind !== 'doubled') || f.controller !== controller) continue
    if (f.kind === 'doubled') {
      if (f.two === terminal) return null
    } else if (f.one === terminal) return f.two
    else if (f.two === terminal) return f.one
  }
  return terminal
}

/** The terminal that lives with a station's: its master's. */
export function masterAt(
  { site }: Real,
  { controller, terminal }: Screw,
): (Screw & { readonly valve: DeviceId | null }) | null {
  const station = stationAt(site, { controller, terminal })?.[1]
  const point =
    station?.withMaster && station.pointOfConnection ? lookUp(site.pointsOfConnection, station.pointOfConnection) : null
  return point?.terminal ? { ...point.terminal, valve: point.masterValve } : null
}

/** What a terminal is there for. */
export function valvesOf({ site }: Real, at: Screw): readonly DeviceId[] {
  const point = pointAt(site, at)?.[1]
  return stationAt(site, at)?.[1].valves ?? [point?.masterValve, point?.pumpRelay].filter((d) => d != null)
}
export const terminalOf = (real: Real, device: DeviceId): Screw | null =>
  entries(real.site.controllers).flatMap(([controller, c]) =>
    (Object.keys(c.terminals) as TerminalId[])
      .filter((terminal) => valvesOf(real, { controller, terminal }).includes(device))
      .map((terminal) => ({ controller, terminal })),
  )[0] ?? null
