import type { ControllerId, DeviceId, Site } from '../site'
import type { WallClock } from './clock'
import type { Program } from './program'
import type { Ran, RunRules } from './runs'
import type { StationOn } from './station'

export type FindingCode =
  | 'overlap'
  | 'start_waits'
  | 'window_exceeded'
  | 'over_run_cap'
  | 'too_many_starts'
  | 'too_many_programs'
  | 'over_VA'
  | 'below_minimum_V'
  | 'over_flow'
  | 'master_with_nothing'
  | 'pump_with_nothing'
  | 'no_valve'
  | 'sequencer_adjacent'
  | 'sequencer_order'
  | 'sequencer_missed'
  | 'never_runs'

/** What is wrong with a schedule, once for each thing it is wrong of, at its first time. */
export interface ScheduleFinding {
  readonly code: FindingCode
  readonly params: Readonly<Record<string, string | number>>
  /** What a mend would change. */
  readonly about: {
    /** Its number in the list. */
    readonly program?: number
    readonly station?: StationOn
    readonly sequencer?: DeviceId
    /** How many stations run beside it then. */
    readonly beside?: number
  }
}

/** What a schedule is judged by: the property, its controller, the programs as they are listed, and what they ran. */
export interface Judged {
  readonly site: Site
  readonly controller: ControllerId
  readonly programs: readonly Program<StationOn>[]
  readonly ran: Ran<StationOn>
  readonly rules: RunRules
  readonly clock: WallClock
}
