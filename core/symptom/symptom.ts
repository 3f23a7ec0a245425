import type { FieldTest, ReadingValue, WiringState } from '../record'
import {
  getOrThrow,
  stationAt,
  terminalEnd,
  type ControllerId,
  type DeviceId,
  type End,
  type Site,
  type TerminalId,
} from '../site'
import type { CheckId } from './checks'

/** What has to be told of a symptom beside its name. */
export type Asks =
  /** Any number of zones. */
  | 'zones'
  /** One zone. */
  | 'zone'
  /** One zone, and another that has to do with it. */
  | 'two_zones'
  /** One zone, and the state of the ground or the wires in which it fails. */
  | 'zone_and_state'
  /** One zone that runs besides, whichever is on. */
  | 'besides'
  | 'nothing'

/**
 * A symptom: what is asked of it, and the checks beside the wiring that it leads to. `wiring`: whether it is a reading
 * that a hunt can weigh.
 */
interface Kind {
  readonly asks: Asks
  readonly wiring: boolean
  readonly check: CheckId | null
}

/** Every symptom that a crew is called for, the commonest first. */
export const SYMPTOMS = {
  dry: { asks: 'zones', wiring: true, check: null },
  dead_first_use: { asks: 'nothing', wiring: true, check: null },
  clicks_no_water: { asks: 'zone', wiring: true, check: 'no_water' },
  wrong_one: { asks: 'two_zones', wiring: true, check: null },
  two_together: { asks: 'two_zones', wiring: true, check: null },
  runs_besides: { asks: 'besides', wiring: true, check: null },
  fails_in_state: { asks: 'zone_and_state', wiring: true, check: null },
  comes_and_goes: { asks: 'zone', wiring: true, check: null },
  will_not_stop: { asks: 'zone', wiring: false, check: 'will_not_stop' },
  weeps: { asks: 'zone', wiring: false, check: 'weeps' },
  head_low: { asks: 'zone', wiring: false, check: 'head_low' },
} as const satisfies Readonly<Record<string, Kind>>
export type Symptom = keyof typeof SYMPTOMS

/** A symptom as it was told. `zones`: those that it is told of; `other`: the zone that has to do with them. */
export interface Told {
  readonly symptom: Symptom
  readonly zones: readonly TerminalId[]
  readonly other: TerminalId | null
  readonly state: WiringState | null
}

/** A reading that a symptom stands for. */
export interface SymptomReading {
  readonly test: FieldTest
  readonly value: ReadingValue
  readonly state?: WiringState
}

/**
 * The readings that a symptom stands for: which valves water while a zone is on, in which state, and whether its valve
 * was heard. None for what is no matter of the wiring.
 */
export function readingsOf(site: Site, controller: ControllerId, told: Told): SymptomReading[] {
  const at = (terminal: TerminalId) => terminalEnd(controller, terminal) as Extract<End, { kind: 'terminal' }>
  const valvesAt = (terminal: TerminalId): readonly DeviceId[] =>
    stationAt(site, { controller, terminal })?.[1].valves ?? []
  const stations = () =>
    (Object.keys(getOrThrow(site.controllers, controller).terminals) as TerminalId[]).filter(
      (t) => stationAt(site, { controller, terminal: t }) !== undefined,
    )
  const waters = (terminal: TerminalId, valves: readonly DeviceId[], state?: WiringState): SymptomReading => ({
    test: { kind: 'water', at: at(terminal) },
    value: { kind: 'waters', valves: [...valves] },
    ...(state ? { state } : {}),
  })
  const { symptom, zones, other, state } = told
  switch (symptom) {
    case 'dry':
      return zones.map((z) => waters(z, []))
    case 'dead_first_use':
      return stations().map((z) => waters(z, []))
    case 'clicks_no_water':
      return zones.flatMap((z) => [
        waters(z, []),
        { test: { kind: 'click', at: at(z) }, value: { kind: 'heard', heard: true } },
      ])
    case 'wrong_one':
      return other === null ? [] : zones.map((z) => waters(z, valvesAt(other)))
    case 'two_together':
      // Whichever of them is on: where only one brings the other along, its valve may stand open.
      return other === null
        ? []
        : zones.flatMap((z) => [z, other].map((on) => waters(on, [...valvesAt(z), ...valvesAt(other)])))
    case 'runs_besides':
      return other === null
        ? []
        : stations()
            .filter((z) => z !== other)
            .map((z) => waters(z, [...valvesAt(z), ...valvesAt(other)]))
    case 'fails_in_state':
      return state === null ? [] : zones.map((z) => waters(z, [], state))
    // What comes and goes is looked for while its wires are moved.
    case 'comes_and_goes':
      return zones.map((z) => waters(z, [], 'moved'))
    default:
      return []
  }
}
