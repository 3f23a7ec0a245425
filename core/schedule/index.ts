export { instantOf, localText, shownAt, wallClock } from './clock'
export type { WallClock } from './clock'
export { dateOf, dayNumber, runsOn, weekdayOf } from './days'
export type { CalendarDate, Days } from './days'
export { momentsOf } from './moments'
export type { Moment } from './moments'
export {
  addProgram,
  gridStations,
  headCommands,
  minutesCommands,
  minutesText,
  pastedCells,
  pasteMinutes,
  PROGRAM_CELLS,
  replacePrograms,
} from './edit'
export type { ProgramCell } from './edit'
export { changeCommands, mendOf } from './mend'
export type { Changed, Mending } from './mend'
export { proposalsFor } from './propose'
export type { Proposal, ProposalCode } from './propose'
export { voltsAsker, voltsAt } from './electric'
export type { VoltsThen } from './electric'
export { bandsAt, weekOf } from './week'
export type { Band, Wait, Week } from './week'
export { JUDGED_days, programsOf, review, rulesOf, running } from './on-record'
export type { RecordedProgram, Reviewed, Running } from './on-record'
export { perCentIn, startsOf, toRuns } from './program'
export type { Program, Seasonal } from './program'
export {
  daysText,
  daysTyped,
  readDays,
  readPrograms,
  readSeasonal,
  readStarts,
  seasonalText,
  startsText,
  timeText,
} from './read'
export type { ProgramCells, ReadProgram } from './read'
export { runsOf, runSeconds } from './runs'
export type { ProgramRuns, Ran, Run, RunRules, Start } from './runs'
export type { FindingCode, Judged, ScheduleFinding } from './finding'
export { programRuns } from './calendar'
export type { ProgramRun } from './calendar'
export { doorSheet } from './door-sheet'
export type { DoorSheet } from './door-sheet'
export { findingsOf } from './findings'
export { stationTag } from './station-tag'
export { turnsOf } from './sequencers'
export type { Turn } from './sequencers'
export { programTurns } from './counted'
export { sequencerYear } from './sequencer-year'
export type { SequencerDay, SequencerYear, YearAsked } from './sequencer-year'
export { drawUpsets } from './upsets'
export type { Upset } from './upsets'
export { stationKey } from './station'
export type { StationOn } from './station'
export { USUAL_WET_CHECK, wetCheck } from './wet-check'
export type { WetCheck, WetCheckRules, WetStation, WetStop } from './wet-check'
