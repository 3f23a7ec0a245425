import { coilImpedance, size, type Complex, type Join } from '../circuit'
import { lookUp, getOrThrow, type DeviceId, type TerminalId } from '../site'
import { pullIn_V, type HuntContext, type State } from './context'
import {
  changesOf,
  modsOf,
  type Alter,
  type Catalogue,
  type Faults,
  type FaultHypothesis,
  type NetworkEdit,
} from './catalogue'

/** A terminal's wire under power with some faults: volts at every coil as it starts. */
export interface Live {
  readonly alters: readonly Alter[]
  readonly joins: readonly Join[]
  readonly first: ReadonlyMap<DeviceId, number>
  readonly pulled: ReadonlySet<DeviceId>
}

/**
 * A terminal's wire: its state, the coils that it and its master are meant to feed, and what was worked out of it, by
 * the fault's cell.
 */
interface Wire {
  readonly state: State
  readonly coils: readonly DeviceId[]
  readonly lives: Map<number, Live>
}

export interface Power {
  readonly liveAt: (terminal: TerminalId, faults: Faults) => Live
  /** Volts between two points once the coils that pull in have done so and draw less. */
  readonly heldVolts: (terminal: TerminalId, faults: Faults, a: number, b: number) => Held
}

/** Volts, and one deviation of them by what is left open of the faults' figures. */
export interface Held {
  readonly mean: number
  readonly spread: number
}

/** What moves volts by less than this is not followed to how much less. */
const UNMOVED_V = 0.1

/** What a controller's wires do when their terminals are on; every state is worked out once. */
export function powerOf(context: HuntContext, catalogue: Catalogue): Power {
  const { site } = context
  const faultOf = (v: FaultHypothesis) => catalogue.faults[v.fault]!
  const wires = new Map<TerminalId, Wire>()
  const wireOf = (terminal: TerminalId): Wire => {
    const known = wires.get(terminal)
    if (known) return known
    const made: Wire = {
      state: context.on(terminal),
      coils: [...new Set([...(context.hanging.get(terminal)?.coils ?? []), ...masterCoils(terminal)])].filter((d) =>
        context.coilElement.has(d),
      ),
      lives: new Map(),
    }
    wires.set(terminal, made)
    return made
  }
  /** The property with a terminal on: volts at every coil as it starts, and which pull in. */
  function liveAt(terminal: TerminalId, faults: Faults): Live {
    const wire = wireOf(terminal)
    const felt = faults.filter((v) => v.mods.alters.length + v.mods.joins.length > 0)
    // Pairs are too many to be kept.
    if (felt.length > 1) return madeLive(wire, felt)
    const key = felt[0]?.index ?? -1
    const live = wire.lives.get(key) ?? madeLive(wire, felt)
    wire.lives.set(key, live)
    return live
  }
  function madeLive({ state, coils }: Wire, felt: Faults): Live {
    const mods = modsOf(felt, (e) => state.powered.parts[e]!)
    const changes = changesOf(state, mods.alters)
    const first = new Map<DeviceId, number>()
    const pulled = new Set<DeviceId>()
    for (const device of felt.length === 0 ? coils : [...coils, ...felt.flatMap((v) => faultOf(v).besides)]) {
      const element = context.coilElement.get(device)
      if (element === undefined || first.has(device)) continue
      const { a, b } = state.powered.parts[element]!
      const volt_V = size(state.influence.volts(state.testOf(a, b), changes, mods.joins))
      first.set(device, volt_V)
      if (volt_V >= pullIn_V(site, device)) pulled.add(device)
    }
    return { alters: mods.alters, joins: mods.joins, first, pulled }
  }
  /** By what is read and the fault's cell: one deviation of its volts. */
  const spreads = new Map<string, number>()
  function heldVolts(terminal: TerminalId, faults: Faults, a: number, b: number): Held {
    const state = context.on(terminal)
    const live = liveAt(terminal, faults)
    const held = Array.from(live.pulled, asHeld)
    const test = state.testOf(a, b)
    const mean = voltsWith(state, test, held, live)
    const graded = faults.filter((v) => v.shifted.length > 0)
    if (graded.length === 0) return { mean, spread: 0 }
    if (faults.length > 1)
      return { mean, spread: Math.hypot(...graded.map((v) => heldVolts(terminal, [v], a, b).spread)) }
    const [v] = graded as [FaultHypothesis]
    const key = `${terminal} ${a} ${b} ${v.index}`
    let spread = spreads.get(key)
    if (spread === undefined) {
      const sound = heldVolts(terminal, [], a, b).mean
      spread =
        Math.abs(mean - sound) < UNMOVED_V
          ? 0
          : Math.hypot(...v.shifted.map((to) => voltsWith(state, test, held, to) - mean))
      spreads.set(key, spread)
    }
    return { mean, spread }
  }
  /** Volts that a test reads while some coils hold. */
  const voltsWith = (state: State, test: number, held: readonly Alter[], { alters, joins }: NetworkEdit): number =>
    size(state.influence.volts(test, changesOf(state, [...held, ...alters]), joins))
  /** A coil that has pulled in draws less: worked out once. */
  const asHeld = (device: DeviceId): Alter => {
    const known = heldCoils.get(device)
    if (known) return known
    const z = holding(device)
    const made: Alter = { element: context.coilElement.get(device)!, to: () => z }
    heldCoils.set(device, made)
    return made
  }
  const heldCoils = new Map<DeviceId, Alter>()
  const holding = (device: DeviceId): Complex => {
    const kind = lookUp(site.devices, device)?.coilKind
    return coilImpedance(
      kind ? getOrThrow(site.coilKinds, kind) : null,
      'holding',
      'optimistic',
      site.settings.mains_Hz,
      context.climate.coil_C,
    )
  }
  const masterCoils = (terminal: TerminalId): readonly DeviceId[] => {
    const m = context.masterOf(terminal)
    return m ? (context.hanging.get(m.terminal)?.coils ?? []) : []
  }
  return { liveAt, heldVolts }
}

/** Volts at a coil as it starts; none for one that the terminal does not feed. */
export const started_V = (live: Live, device: DeviceId): number => live.first.get(device) ?? 0
