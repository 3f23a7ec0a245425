import type { NoConversionCode } from '../path'
import type { Part } from '../record'
import type { Coded } from '../refusal'
import type { Command, ControllerId, DeviceId, PlaceId, Site, StationId } from '../site'
import type { Gauge } from '../quantity'
import type { Damage } from './damage'
import type { RepairPart } from './figures'
import type { FailCode } from './works'

export const REPAIR_CODES = [
  'remake_joint',
  'spare_core',
  'new_wire',
  'trace_and_mend',
  'other_terminal',
  'module',
  'transformer',
  'two_on_lead',
  'sequencer',
  'two_wire',
  'coil',
  'whole_valve',
  'swap_back',
  'bypass_master',
] as const
export type RepairCode = (typeof REPAIR_CODES)[number]

/** Work that is counted, a figure of its own for each kind. */
export const WORK_KINDS = [
  'place',
  'joint',
  'screw',
  'prove',
  'trace',
  'hole',
  'trench_m',
  'coil',
  'valve',
  'module',
  'transformer',
  'decoder',
  'bypass',
] as const
export type WorkKind = (typeof WORK_KINDS)[number]

/** How a repair holds: what may come of it, and for how long it is meant. */
export type RiskCode =
  | 'same_copper'
  | 'same_jacket'
  | 'digging'
  | 'buried_joint'
  | 'run_together'
  | 'keeps_count'
  | 'whole_cable'
  | 'old_valve'
  | 'water_on'
  | 'no_shut_off'
  | 'none'

/** A way in which something could be repaired, as it would stand then. */
export interface Tried {
  readonly after: Damage
  /** Joints that nothing which is carried holds. */
  readonly unheld: readonly PlaceId[]
  readonly bypassed: readonly DeviceId[]
  readonly work: Readonly<Partial<Record<WorkKind, number>>>
  readonly parts: Readonly<Partial<Record<RepairPart, number>>>
  readonly wire: { readonly gauge: Gauge; readonly length_m: number } | null
}

/** Why there is nothing to try. */
export type NoneCode =
  | 'no_spare'
  | 'no_cable'
  | 'no_free_screw'
  | 'no_bay'
  | 'no_neighbour'
  | 'several_stations'
  | 'none_stopped'
  | 'no_lead'
  | 'no_connector'
  | 'no_system'
/** Why what was tried is none: the engine’s reasons, and the rules of boxes. */
export type WhyNot = Coded<NoneCode | NoConversionCode | FailCode | 'rules_broken' | 'valve_lost' | 'record_broken'>

/** What a repair is asked for. */
export interface RepairAsk {
  /** The record as it is, without what was found. */
  readonly site: Site
  readonly where: Part
  readonly damage: Damage
  readonly controller: ControllerId
  /** Stations that worked, by the record, and do not as found. */
  readonly stopped: readonly StationId[]
  /** `YYYY-MM-DD`. */
  readonly today: string
}

interface Common {
  readonly code: RepairCode
}
export interface Possible extends Common {
  readonly possible: true
  readonly commands: readonly Command[]
  readonly tried: Tried
  readonly minutes: number
  readonly material_cents: number
  /** Minutes at their worth, and material. */
  readonly cents: number
  readonly dig_m: number
  readonly risk: RiskCode
  readonly isTemporary: boolean
}
export interface Impossible extends Common {
  readonly possible: false
  readonly why: WhyNot
  /** All that was tried in vain; empty where there is nothing to try. */
  readonly inVain: readonly { readonly tried: Tried; readonly why: WhyNot }[]
}
export type RepairOption = Possible | Impossible
