import { accepted, type Outcome } from '../refusal'
import { entries, getOrThrow, type ControllerId, type ProgramId, type ProgramRecord, type Site } from '../site'
import { wallClock, type WallClock } from './clock'
import type { CalendarDate } from './days'
import type { ScheduleFinding } from './finding'
import { findingsOf } from './findings'
import { toRuns, type Program } from './program'
import { runsOf, type Ran, type RunRules } from './runs'
import type { StationOn } from './station'

/** A program of a controller as it is on record. */
export interface RecordedProgram extends Program<StationOn> {
  readonly id: ProgramId
}

/** The programs of a controller in their order. */
export const programsOf = (site: Site, controller: ControllerId): RecordedProgram[] =>
  entries(site.programs)
    .filter(([, p]) => p.controller === controller)
    .sort(([, a], [, b]) => a.order - b.order || a.name.localeCompare(b.name, 'en'))
    .map(([id, { name, starts_s, days, seasonal_pct, runs }]) => ({
      id,
      name,
      starts_s,
      days,
      seasonal_pct,
      runs: runs.map(({ terminal, address, minutes }) => ({ station: { terminal, address }, minutes })),
    }))

/** The same as the record has it. */
export const recordOf = (
  controller: ControllerId,
  order: number,
  { name, starts_s, days, seasonal_pct, runs }: Program<StationOn>,
): ProgramRecord => ({
  controller,
  name,
  order,
  starts_s: [...starts_s],
  days,
  seasonal_pct: typeof seasonal_pct === 'number' ? seasonal_pct : [...seasonal_pct],
  runs: recordedRuns(runs),
})
export const recordedRuns = (runs: Program<StationOn>['runs']): ProgramRecord['runs'] =>
  runs.map(({ station: { terminal, address }, minutes }) => ({ terminal, address, minutes }))

/** How a controller runs its programs, by its record. */
export function rulesOf(site: Site, controller: ControllerId): RunRules {
  const { startsRun, delay_s } = getOrThrow(site.controllers, controller).scheduling
  return { mode: startsRun, delay_s }
}

/** What programs run from a date on. */
export interface Running {
  readonly clock: WallClock
  readonly rules: RunRules
  readonly ran: Ran<StationOn>
}
/** And what is wrong with them. */
export interface Reviewed extends Running {
  readonly findings: readonly ScheduleFinding[]
}
/** Dates, and rules and time zone other than those on record. */
export interface Asked {
  readonly from: CalendarDate
  readonly days: number
  readonly zone?: string | undefined
  readonly rules?: Partial<RunRules>
}

/** Runs the programs of a controller over so many dates; refused where the zone is none. */
export function running(
  site: Site,
  controller: ControllerId,
  programs: readonly Program<StationOn>[],
  { from, days, zone = site.settings.timeZone, rules: told }: Asked,
): Outcome<Running> {
  const clock = wallClock(zone)
  if (!clock.ok) return clock
  const rules = { ...rulesOf(site, controller), ...told }
  return accepted({ clock: clock.value, rules, ran: runsOf(programs.map(toRuns), rules, clock.value, from, days) })
}

/** A schedule is judged over at least these many dates, in which odd, even, weekdays and every so many days meet. */
export const JUDGED_days = 28

/** Runs them, and judges what runs. */
export function review(
  site: Site,
  controller: ControllerId,
  programs: readonly Program<StationOn>[],
  asked: Asked,
): Outcome<Reviewed> {
  const run = running(site, controller, programs, asked)
  if (!run.ok) return run
  return accepted({ ...run.value, findings: findingsOf({ site, controller, programs, ...run.value }) })
}
