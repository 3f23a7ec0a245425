import {
  climateOf,
  influenceOf,
  partsOf,
  poweredOf,
  type Climate,
  type Conditions,
  type Influence,
  type Powered,
} from '../circuit'
import {
  commonOf,
  hangingOn,
  lookUp,
  getOrThrow,
  netsOf,
  stationsOnScrews,
  terminalEnd,
  terminalsInOrder,
  walkFrom,
  type ControllerId,
  type DeviceId,
  type Hanging,
  type PointOfConnection,
  type Site,
  type Station,
  type TerminalId,
  type Walk,
  type WirePoint,
} from '../site'

/** The network of a state, ready to be asked: a terminal switched on, or everything off and an ohmmeter there. */
export interface State {
  readonly powered: Powered
  readonly influence: Influence
  readonly testOf: (a: number, b: number) => number
}

/** One controller's wiring made ready for a hunt. Elements go by the same number in every state. */
export interface HuntContext {
  readonly site: Site
  readonly climate: Climate
  readonly controller: ControllerId
  readonly common: TerminalId
  readonly meterState: State
  /** The state in which a terminal's wire is live; `withMaster` as its station has it. */
  readonly on: (terminal: TerminalId) => State
  readonly hanging: ReadonlyMap<TerminalId, Hanging>
  /** Terminals with something on them that can be read, in the order of the door. */
  readonly terminals: readonly TerminalId[]
  readonly stationAt: (terminal: TerminalId) => Station | null
  readonly masterOf: (terminal: TerminalId) => { readonly terminal: TerminalId; readonly valve: DeviceId | null } | null
  /** The valves that a terminal is meant to run; the master valve for its own. */
  readonly valvesOf: (terminal: TerminalId) => readonly DeviceId[]
  readonly terminalOf: (device: DeviceId) => TerminalId | null
  readonly node: (point: WirePoint) => number | null
  readonly wire: (terminal: TerminalId) => number
  readonly coilElement: ReadonlyMap<DeviceId, number>
  /** Whether an element is part of what hangs on this controller. */
  readonly within: (element: number) => boolean
  readonly onCommon: (point: WirePoint) => boolean
  readonly walk: (terminal: TerminalId) => Walk
}

/** Null for a controller without a common: nothing can be measured there. */
export function huntContextOf(
  site: Site,
  controller: ControllerId,
  climate: Climate = climateOf(site),
): HuntContext | null {
  const common = commonOf(site, controller)
  if (common === null) return null
  const conditions = (live: Conditions['live'], frequency_Hz: Conditions['frequency_Hz']): Conditions => ({
    climate,
    frequency_Hz,
    phase: 'optimistic',
    mains_ratio: 1,
    wire: 'nominal',
    faces: new Map(),
    turns: new Map(),
    live: live ?? [],
  })
  const meterState = stateOf(poweredOf(site, conditions([], 0), controller))
  const { powered } = meterState
  const part = partsOf(powered.nodeCount, powered.parts)
  const wire = (terminal: TerminalId): number =>
    powered.nodeOf.get(powered.wiring.pointOf(terminalEnd(controller, terminal)))!
  const hanging = hangingOn(site, powered.wiring, controller)
  const door = terminalsInOrder(site, controller)
  const touched = new Set(door.filter((t) => hanging.get(t)?.landed).map((t) => part[wire(t)]!))
  const stations = new Map(stationsOnScrews(site, controller).map((s) => [s.terminal, s]))
  const stationAt = (terminal: TerminalId) => stations.get(terminal) ?? null
  const masters = new Map<TerminalId, PointOfConnection>(
    Object.values(site.pointsOfConnection).flatMap((p) =>
      p.terminal?.controller === controller ? [[p.terminal.terminal, p] as const] : [],
    ),
  )
  const masterOf = (terminal: TerminalId) => {
    const station = stationAt(terminal)
    const point =
      station?.withMaster && station.pointOfConnection !== null
        ? getOrThrow(site.pointsOfConnection, station.pointOfConnection)
        : null
    return point?.terminal?.controller === controller && hanging.get(point.terminal.terminal)?.landed
      ? { terminal: point.terminal.terminal, valve: point.masterValve }
      : null
  }
  const states = new Map<TerminalId, State>()
  const on = (terminal: TerminalId): State => {
    if (!states.has(terminal)) {
      const master = masterOf(terminal)
      const live = [terminal, ...(master && master.terminal !== terminal ? [master.terminal] : [])].map((t) => ({
        controller,
        terminal: t,
      }))
      states.set(terminal, stateOf(poweredOf(site, conditions(live, site.settings.mains_Hz), controller)))
    }
    return states.get(terminal)!
  }
  const coilElement = new Map(
    powered.parts.flatMap((p, i) => (p.of.kind === 'coil' ? [[p.of.device, i] as const] : [])),
  )
  const nets = netsOf(powered.wiring)
  const home = nets.of(powered.wiring.pointOf(terminalEnd(controller, common)))
  const walks = new Map<TerminalId, Walk>()
  const valves = new Map(
    door.map((terminal) => {
      const point = masters.get(terminal)
      return [
        terminal,
        stationAt(terminal)?.valves ?? [point?.masterValve, point?.pumpRelay].filter((d) => d != null),
      ] as const
    }),
  )
  const terminals = door.filter((t) => {
    const at = hanging.get(t)
    return (
      t !== common &&
      at !== undefined &&
      at.landed &&
      at.switchedBy.length === 0 &&
      (stationAt(t) !== null || masters.has(t))
    )
  })
  const homes = new Map([...terminals].reverse().flatMap((t) => (valves.get(t) ?? []).map((d) => [d, t] as const)))
  return {
    site,
    climate,
    controller,
    common,
    meterState,
    on,
    hanging,
    terminals,
    stationAt,
    masterOf,
    valvesOf: (terminal) => valves.get(terminal) ?? [],
    wire,
    coilElement,
    terminalOf: (device) => homes.get(device) ?? null,
    node: (point) => powered.nodeOf.get(point) ?? null,
    within: (element) => touched.has(part[powered.parts[element]!.a]!),
    onCommon: (point) => nets.of(point) === home,
    walk: (terminal) => {
      if (!walks.has(terminal)) walks.set(terminal, walkFrom(site, powered.wiring, controller, terminal))
      return walks.get(terminal)!
    },
  }
}

function stateOf(powered: Powered): State {
  const influence = influenceOf(powered)
  const asked = new Map<number, number>()
  return {
    powered,
    influence,
    testOf: (a, b) => {
      const key = a * powered.nodeCount + b
      if (!asked.has(key)) asked.set(key, influence.test({ a, b }))
      return asked.get(key)!
    },
  }
}

/** The least volts that pull a coil in, by its sheet. */
export const pullIn_V = (site: Site, device: DeviceId): number => {
  const kind = lookUp(site.devices, device)?.coilKind
  return kind ? getOrThrow(site.coilKinds, kind).minimum_V : 19
}
