import { copperFactor } from '../../core/quantity'
import type { FieldTest, Meter, ReadingValue } from '../../core/record'
import {
  commonOf,
  entries,
  terminalEnd,
  wiringOf,
  type ControllerId,
  type DeviceId,
  type Site,
  type TerminalId,
} from '../../core/site'
import type { FieldFault } from '../fault'
import { WORLD, type World } from '../world'
import { atBox, isBad } from './box'
import { drawnOf, within } from './drawn'
import { networkOf, NOTHING, type Network } from './network'
import { opens, openVolts, powerOf, type Power, type Powered } from './power'
import { coilDead, masterAt, outputDead, stuck, terminalOf, valvesOf, wrongAt, type Real, type Screw } from './real'
import { toneEnds } from './tone'
import { turningOf, type Standing } from './turning'

/**
 * A property as it really is: the recorded one with each part a little off its sheet, and what is wrong in the
 * ground.
 */
export interface Field {
  readonly answer: (test: FieldTest, meter: Meter) => ReadingValue
  /** Valves through which water comes with terminals of a controller on, from a second on. */
  readonly running: (controller: ControllerId, on: readonly TerminalId[], at_s: number) => DeviceId[]
}

/**
 * Draws a real property from its record. Coils, lengths and joints are off by truncated normals with the property's own
 * tolerances at 2σ (times `spread`); the same chance gives the same property, and the same questions in the same
 * order the same answers. `noise` is the chance of the meter, the eye and the ear, where it is to be another; `known`
 * what earlier readings say of coils, as parts of their sheet's ohms; `sequencers` which output of each had power last:
 * without it nothing comes through any of them.
 */
export function fieldOf(
  site: Site,
  faults: readonly FieldFault[],
  {
    random,
    noise = random,
    ground_C,
    spread = 1,
    known,
    world = WORLD,
    sequencers = null,
  }: {
    readonly random: () => number
    readonly noise?: () => number
    readonly ground_C: number
    readonly spread?: number
    readonly known?: ReadonlyMap<DeviceId, number>
    readonly world?: World
    readonly sequencers?: Standing | null
  },
): Field {
  const drawn = drawnOf(site, random, spread, known, world)
  const real: Real = { site, wiring: wiringOf(site), faults, drawn, world, ground_C }
  const network = networkOf(real, noise)
  const power = powerOf(real, network, sequencers && turningOf(real, network, sequencers))
  return {
    answer: (test, meter) => answer({ real, network, power, noise }, test, meter),
    running: (controller, on, at_s) => {
      const powered = power.together(controller, on, at_s)
      return [...new Set(on.flatMap((terminal) => waters(real, powered, { controller, terminal })))]
    },
  }
}

interface Asked {
  readonly real: Real
  readonly network: Network
  readonly power: Power
  readonly noise: () => number
}

function answer({ real, network, power, noise }: Asked, test: FieldTest, meter: Meter): ReadingValue {
  const { tester } = real.world
  const asIs = () => ({ undone: NOTHING, apart: network.looseNow(), jumper: null })
  const shown = (ohm: number, toEarth: boolean): ReadingValue =>
    metered(toEarth ? 1 / (1 / ohm + 1 / real.drawn.insulation_ohm) : ohm, meter, noise)
  const volt = (v: number): ReadingValue => ({ kind: 'volt', volt: Math.round(v * 10) / 10 })
  const clicks = (screw: Screw, output?: TerminalId): ReadingValue => {
    const powered = power.on(screw, output)
    return { kind: 'heard', heard: valvesOf(real, screw).some((v) => powered?.held.has(v)) }
  }
  switch (test.kind) {
    case 'ohms':
      return shown(
        network.ohms(network.pointOf(test.from), network.pointOf(test.to), asIs()),
        test.to.kind === 'earth' || test.from.kind === 'earth',
      )
    case 'supply':
      return volt(wrongAt(real, test.controller, ['supply']) ? 0 : openVolts(real, test.controller) * real.drawn.mains)
    case 'volts':
      return volt(terminalVolts(real, network, power, test.at))
    case 'tester_power':
      return { kind: 'lamp', lamp: terminalVolts(real, network, power, test.at) >= tester.lit_V ? 'lit' : 'dark' }
    case 'click':
      return clicks(test.at)
    case 'swap_test':
      return clicks(test.at, test.onto.terminal)
    case 'tester_coil': {
      const common = commonOf(real.site, test.at.controller)
      const ohm =
        common === null
          ? Infinity
          : network.ohms(network.under(test.at), network.pointOf(terminalEnd(test.at.controller, common)), asIs())
      return {
        kind: 'lamp',
        lamp: ohm < tester.short_ohm * copperFactor(real.ground_C) ? 'short' : ohm > tester.open_ohm ? 'open' : 'good',
      }
    }
    case 'coil_volts':
    case 'coil_beside': {
      const live = test.kind === 'coil_beside' ? test.live : terminalOf(real, test.device)
      const powered = live && power.on(live)
      const coil = real.wiring.links.find((l) => l.kind === 'coil' && l.device === test.device)
      // A meter between two points that nothing joins shows none.
      return volt(
        powered && coil && powered.linked(network.number(coil.a), network.number(coil.b))
          ? (powered.coil_V.get(test.device) ?? 0)
          : 0,
      )
    }
    case 'water':
      return { kind: 'waters', valves: waters(real, power.on(test.at), test.at) }
    case 'energise':
      return { kind: 'heard', heard: !coilDead(real, test.device) }
    case 'by_hand': {
      const own = terminalOf(real, test.device)
      return {
        kind: 'flows',
        flows: !stuck(real, 'stuck-shut', test.device) && !(own && wrongAt(real, own.controller, ['water'])),
      }
    }
    case 'look':
    case 'remake':
      return {
        kind: 'looked',
        sound: noise() >= real.world.shows[test.kind][isBad(real, test.splice) ? 'bad' : 'sound'],
      }
    case 'tone':
      return { kind: 'tone', lost_m: toneEnds(real, test.at, noise) }
    default:
      return shown(atBox(real, network, test), test.kind.endsWith('_earth'))
  }
}

/** What a meter makes of so many ohms: its own error, its last digit, its leads. */
function metered(ohm: number, meter: Meter, noise: () => number): ReadingValue {
  if (ohm > meter.highest_ohm) return { kind: 'open' }
  const digit = ohm < 1000 ? 0.1 : 10 ** (Math.floor(Math.log10(ohm)) - 3)
  const read =
    Math.round((ohm * (1 + within(meter.accuracy_ratio, noise)) + within(meter.offset_ohm, noise)) / digit) * digit
  return { kind: 'ohm', ohm: Number(Math.max(0, read + meter.leadZero_ohm).toFixed(1)) }
}

function terminalVolts(real: Real, network: Network, power: Power, screw: Screw): number {
  const powered = power.on(screw)
  if (powered === null || outputDead(real, screw)) return 0
  const under = network.under(screw)
  return under === null
    ? openVolts(real, screw.controller) * real.drawn.mains
    : powered.across(under, network.wireOf(screw.controller, commonOf(real.site, screw.controller)!))
}

/** Valves through which water comes, as things are powered, on the pipe of a terminal that is on. */
function waters(real: Real, powered: Powered | null, screw: Screw): DeviceId[] {
  const master = masterAt(real, screw)
  const flowing =
    !wrongAt(real, screw.controller, ['water']) &&
    (master === null || master.valve === null || opens(real, master.valve, powered))
  return flowing
    ? entries(real.site.devices)
        .filter(([d, { kind }]) => kind === 'coil' && d !== master?.valve && opens(real, d, powered))
        .map(([d]) => d)
    : []
}
