import { commonOf, getOrThrow, type ControllerId, type DeviceId, type TerminalId } from '../../core/site'
import { denseSolver, joined } from '../dense'
import { coilKindOf, NOTHING, type Network } from './network'
import type { Turning } from './turning'
import { coilDead, masterAt, outputDead, stuck, wrongAt, type Real, type Screw } from './real'

/** The property with terminals on, every coil's plunger where it really is. */
export interface Powered {
  readonly across: (a: number, b: number) => number
  readonly linked: (a: number, b: number) => boolean
  readonly coil_V: ReadonlyMap<DeviceId, number>
  readonly held: ReadonlySet<DeviceId>
}
/** What comes out of a controller. */
export interface Power {
  /**
   * With a terminal's wire fed and its master's with it; null where nothing comes out. `output`: the terminal told on,
   * where the wire is moved to it.
   */
  readonly on: (screw: Screw, output?: TerminalId) => Powered | null
  /** With several terminals of a controller on at once, from a second on; none of them is off. */
  readonly together: (controller: ControllerId, on: readonly TerminalId[], at_s: number) => Powered | null
}

/** Rounds in which plungers move until none does. */
const MOST_ROUNDS = 4

/** Volts of a controller's transformer that nothing loads, at nominal mains. */
export const openVolts = ({ site }: Real, controller: ControllerId): number =>
  getOrThrow(site.controllers, controller).transformer?.open_V ?? site.settings.V_open_V

/** @param turning the sequencers; without, nothing comes through any */
export function powerOf(real: Real, network: Network, turning: Turning | null): Power {
  const { site, wiring, drawn } = real
  const states = new Map<string, Powered>()

  function solved(
    controller: ControllerId,
    common: TerminalId,
    feeds: readonly number[],
    apart: ReadonlySet<string>,
    through: readonly (readonly [number, number])[],
  ): Powered {
    const [c, hot] = [network.wireOf(controller, common), network.size]
    const open_V = openVolts(real, controller)
    const source_ohm = (open_V - 24) / ((getOrThrow(site.controllers, controller).transformer?.rating_VA ?? 30) / 24)
    const coils = wiring.links.flatMap((l) =>
      l.kind === 'coil' && !l.broken ? [{ device: l.device, a: network.number(l.a), b: network.number(l.b) }] : [],
    )
    const pulls = (device: DeviceId, volt: number) =>
      volt >= (coilKindOf(real, device)?.minimum_V ?? real.world.pull_V) && !coilDead(real, device)
    let held: ReadonlySet<DeviceId> = new Set()
    for (let round = 1; ; round++) {
      const branches = [
        ...network.branches((d) => (held.has(d) ? 'holding' : 'inrush'), { undone: NOTHING, apart, jumper: null }),
        { a: c, b: hot, z: { re: source_ohm, im: 0 } },
        ...feeds.map((n) => ({ a: n, b: hot, z: { re: 0, im: 0 } })),
        ...through.map(([a, b]) => ({ a, b, z: { re: 0, im: 0 } })),
      ]
      const volts = denseSolver(
        network.size + 1,
        branches,
      )([{ into: hot, outOf: c, amps: { re: (open_V * drawn.mains) / source_ohm, im: 0 } }])
      const across = (a: number, b: number) => Math.hypot(volts[a]!.re - volts[b]!.re, volts[a]!.im - volts[b]!.im)
      const coil_V = new Map(coils.map(({ device, a, b }) => [device, across(a, b)] as const))
      const before = held
      const pulled = new Set([...coil_V].filter(([d, v]) => before.has(d) || pulls(d, v)).map(([d]) => d))
      if (pulled.size === held.size || round > MOST_ROUNDS)
        return { across, linked: (a, b) => joined(network.size + 1, branches, a, b), coil_V, held: pulled }
      held = pulled
    }
  }

  /** With screws fed: first what gets power by wire alone, then what sequencers make of it. */
  function fedWith(controller: ControllerId, fed: readonly Screw[], told: string, at_s: number | null): Powered | null {
    const common = commonOf(site, controller)
    if (common === null || wrongAt(real, controller, ['supply', 'sensor'])) return null
    const apart = network.looseNow()
    const feeds = fed.map(network.under).filter((n) => n !== null)
    const letThrough = (through: readonly (readonly [number, number])[]): Powered => {
      const key = [controller, told, ...apart, through.join(' ')].join('|')
      const made = states.get(key) ?? solved(controller, common, feeds, apart, through)
      states.set(key, made)
      return made
    }
    const powered = letThrough([])
    const through = turning?.turn(powered, at_s) ?? []
    return through.length === 0 ? powered : letThrough(through)
  }
  const withMasters = (screws: readonly Screw[]): Screw[] => [
    ...new Map([...screws, ...screws.flatMap((s) => masterAt(real, s) ?? [])].map((s) => [s.terminal, s])).values(),
  ]
  return {
    on: (screw, output = screw.terminal) => {
      const isFed = (s: Screw) => !outputDead(real, s.terminal === screw.terminal ? { ...s, terminal: output } : s)
      return fedWith(screw.controller, withMasters([screw]).filter(isFed), `${screw.terminal} ${output}`, null)
    },
    together: (controller, on, at_s) => {
      if (on.length === 0) {
        turning?.rest(at_s)
        return null
      }
      const screws = withMasters(on.map((terminal) => ({ controller, terminal })))
      const fed = screws.filter((s) => !outputDead(real, s))
      const told = screws.map((s) => s.terminal).sort()
      return fedWith(controller, fed, `all ${told.join(' ')}`, at_s)
    },
  }
}

/** Whether water comes through a valve. */
export const opens = (real: Real, device: DeviceId, powered: Powered | null): boolean =>
  !stuck(real, 'stuck-shut', device) && (stuck(real, 'stuck-open', device) || (powered?.held.has(device) ?? false))
