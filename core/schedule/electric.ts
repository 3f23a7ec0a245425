import {
  closings,
  coilImpedance,
  complex,
  conditionsFor,
  engineOf,
  minimumOf,
  minus,
  plus,
  poweredOf,
  runningOf,
  size,
  type Edit,
  type Engine,
  type Running,
} from '../circuit'
import { outputsOn, pathEngine, worstFor } from '../path'
import {
  getOrThrow,
  pathOf,
  stationsByNumber,
  type ControllerId,
  type DeviceId,
  type Site,
  type TerminalAt,
} from '../site'
import type { StationOn } from './station'

/** What the wiring gives while some stations run, the last of them just starting. */
export interface VoltsThen {
  readonly load_VA: number
  readonly rating_VA: number | null
  /** Coils and decoders that are on, each with what it gets and needs. */
  readonly at: readonly {
    readonly device: DeviceId
    readonly volt_V: number
    readonly minimum_V: number
    readonly enough: boolean
  }[]
  /** Coils that nothing of this was meant to run, and that pull in all the same. */
  readonly also: readonly DeviceId[]
}

/** A coil at its sheet’s temperature draws most: wire and transformer that bear that bear less too. */
const SHEET_C = 20

/**
 * The circuit engine’s answer for stations on at once, the last of them just starting, under the worst
 * that the property is sized for; screws and the path each by their own source. The network is factored
 * once for all that is asked.
 * @param turns which output of a sequencer has its turn, counted from 1; the first where not named
 */
export function voltsAsker(
  site: Site,
  controller: ControllerId,
  turns: ReadonlyMap<DeviceId, number> = new Map(),
): (on: readonly StationOn[]) => VoltsThen {
  const { sizing, mains_Hz } = site.settings
  const conditions = conditionsFor(
    { live: [], faces: new Map() },
    {
      climate: { ground_C: sizing.hottest_C, coil_C: SHEET_C },
      frequency_Hz: mains_Hz,
      phase: 'safe',
      mains_ratio: 1 - sizing.mainsLow_ratio,
      wire: 'maximum',
    },
  )
  const engine = engineOf(poweredOf(site, { ...conditions, turns }, controller))
  const rating_VA = getOrThrow(site.controllers, controller).transformer?.rating_VA ?? null
  return (on) => {
    const path = pathVoltsAt(site, controller, on)
    const screws = on.filter((s) => s.address === null).map(({ terminal }) => ({ controller, terminal }))
    const masters = mastersBy(site, controller, on)
    const running = runningOf(site, screws, masters)
    if ((screws.length === 0 && masters.length === 0) || !running.ok)
      return { load_VA: 0, rating_VA: null, at: path, also: [] }
    const { load_VA, at, also } = screwVolts(engine, controller, running.value)
    return { load_VA, rating_VA, at: [...at, ...path], also }
  }
}

/**
 * Screws of masters that come in with stations on the path: those of stations on screws the controller knows itself.
 */
function mastersBy(site: Site, controller: ControllerId, on: readonly StationOn[]): (TerminalAt & { as: 'holding' })[] {
  const numbers = new Set(on.flatMap((s) => s.address ?? []))
  const screws = stationsByNumber(site, controller).flatMap(({ address, withMaster, pointOfConnection }) => {
    if (address === null || !numbers.has(address) || !withMaster || pointOfConnection === null) return []
    const at = getOrThrow(site.pointsOfConnection, pointOfConnection).terminal
    return at?.controller === controller ? [at.terminal] : []
  })
  return [...new Set(screws)].map((terminal) => ({ controller, terminal, as: 'holding' }))
}

/** The same for one moment alone. */
export const voltsAt = (site: Site, controller: ControllerId, on: readonly StationOn[]): VoltsThen =>
  voltsAsker(site, controller)(on)

/** Below this a coil is not run at all: what stands between is not turned to it. */
const DEAD_V = 1e-3

/** Volts of what runs on screws, by a network in which every plunger is out. */
function screwVolts(
  { powered, solve }: Engine,
  controller: ControllerId,
  running: Running,
): Omit<VoltsThen, 'rating_VA'> {
  const { site, conditions, parts } = powered
  const coils = parts.flatMap((part, element) => {
    if (part.of.kind !== 'coil') return []
    const { coilKind } = getOrThrow(site.devices, part.of.device)
    const kind = coilKind === null ? null : getOrThrow(site.coilKinds, coilKind)
    const face = running.faces.get(part.of.device)
    return [
      { part, element, face: face ?? ('inrush' as const), isMeant: face !== undefined, kind, device: part.of.device },
    ]
  })
  const held = coils
    .filter((c) => c.isMeant && c.face === 'holding')
    .map(({ element, kind }): Edit => ({
      kind: 'element',
      element,
      z: coilImpedance(kind, 'holding', conditions.phase, conditions.frequency_Hz, conditions.climate.coil_C),
    }))
  const solution = solve([...closings(powered, running.live), ...held])
  const across_V = (a: number, b: number) => size(minus(solution.volts(a), solution.volts(b)))
  const source = powered.sources.find((s) => s.controller === controller && s.feeds === 'terminals')
  const amps = [...solution.closed_A.values()].reduce(plus, complex(0))
  const given = coils.map(({ part, device, face, kind, isMeant }) => {
    const volt_V = across_V(part.a, part.b)
    const minimum_V = minimumOf(kind, face)
    return { isMeant, is: { device, volt_V, minimum_V, enough: volt_V >= minimum_V } }
  })
  return {
    load_VA: source ? size(amps) * across_V(source.hot, source.common) : 0,
    at: given.flatMap(({ isMeant, is }) => (isMeant && is.volt_V > DEAD_V ? [is] : [])),
    also: given.flatMap(({ isMeant, is }) => (!isMeant && is.enough ? [is.device] : [])),
  }
}

function pathVoltsAt(site: Site, controller: ControllerId, on: readonly StationOn[]): VoltsThen['at'] {
  const path = pathOf(site, controller)
  const numbers = on.flatMap((s) => s.address ?? [])
  if (!path || numbers.length === 0) return []
  const made = pathEngine(site, path, 'constant_current', [], worstFor(site))
  if (!made.ok) return []
  const last = on.at(-1)!.address
  const state = outputsOn(site, path)
    .filter((o) => o.address !== null && numbers.includes(o.address))
    .map((output) => ({ output, face: output.address === last ? ('inrush' as const) : ('holding' as const) }))
  const { decoders, coils } = made.value.volts(state)
  return [
    ...decoders.map(({ decoder, ...rest }) => ({ device: decoder, ...rest })),
    ...coils.map(({ coil, ...rest }) => ({ device: coil, ...rest })),
  ]
}
