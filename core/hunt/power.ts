import { coilImpedance, size, type Change, type Complex, type Join } from '../circuit'
import { lookUp, must, type DeviceId, type TerminalId } from '../site'
import { pullIn_V, type Ground } from './ground'
import { changesOf, modsOf, type Alter, type Catalogue, type Faults, type Variant } from './variants'

/** A terminal's wire under power with some faults: volts at every coil as it starts. */
export interface Live { readonly alters: readonly Alter[]; readonly joins: readonly Join[]; readonly changes: readonly Change[]; readonly first: ReadonlyMap<DeviceId, number>; readonly pulled: ReadonlySet<DeviceId> }

export interface Power {
  readonly liveAt: (terminal: TerminalId, faults: Faults) => Live
  /** Volts between two points once the coils that pull in have done so and draw less. */
  readonly heldVolts: (terminal: TerminalId, faults: Faults, a: number, b: number) => number
}

/** What a controller's wires do when their terminals are on; every state is worked out once. */
export function powerOf(ground: Ground, catalogue: Catalogue): Power {
  const { site } = ground
  const faultOf = (v: Variant) => catalogue.faults[v.fault]!
  const lives = new Map<string, Live>()
  /** The property with a terminal on: volts at every coil as it starts, and which pull in. */
  function liveAt(terminal: TerminalId, faults: Faults): Live {
    const felt = faults.filter((v) => v.mods.alters.length + v.mods.joins.length > 0)
    const key = [terminal, ...felt.map((v) => v.index)].join(' ')
    const known = lives.get(key)
    if (known) return known
    const state = ground.on(terminal)
    const mods = modsOf(felt, (e) => state.powered.parts[e]!)
    const coilsHere = [...new Set([...(ground.hanging.get(terminal)?.coils ?? []), ...masterCoils(terminal), ...felt.flatMap((v) => faultOf(v).besides)])].filter((d) => ground.coilElement.has(d))
    const changes = changesOf(state, mods.alters)
    const first = new Map(coilsHere.map((d) => { const { a, b } = state.powered.parts[ground.coilElement.get(d)!]!; return [d, size(state.influence.volts(state.testOf(a, b), changes, mods.joins))] as const }))
    const made: Live = { changes, joins: mods.joins, alters: mods.alters, first, pulled: new Set(coilsHere.filter((d) => first.get(d)! >= pullIn_V(site, d))) }
    lives.set(key, made)
    return made
  }
  function heldVolts(terminal: TerminalId, faults: Faults, a: number, b: number): number {
    const state = ground.on(terminal)
    const { pulled, alters, joins } = liveAt(terminal, faults)
    const held = changesOf(state, [...[...pulled].map((d): Alter => ({ element: ground.coilElement.get(d)!, to: () => holding(d) })), ...alters])
    return size(state.influence.volts(state.testOf(a, b), held, joins))
  }
  const holding = (device: DeviceId): Complex => {
    const kind = lookUp(site.devices, device)?.coilKind
    return coilImpedance(kind ? must(site.coilKinds, kind) : null, 'holding', 'optimistic', site.settings.mains_Hz, ground.climate.coil_C)
  }
  const masterCoils = (terminal: TerminalId): readonly DeviceId[] => { const m = ground.masterOf(terminal); return m ? ground.hanging.get(m.terminal)?.coils ?? [] : [] }
  return { liveAt, heldVolts }
}

/** Volts at a coil as it starts; none for one that the terminal does not feed. */
export const started_V = (live: Live, device: DeviceId): number => live.first.get(device) ?? 0
