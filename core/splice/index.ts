export { boxJoints, connectorsForVan, isMade } from './box'
export type { Behind, BoxJoint, Hold, Way } from './box'
export { connectorCommands, planBoxCommands, tickCommands, wayCommandsOf } from './box-commands'
export { censusCounts, censusOf } from './census'
export type { CensusCore, CoreUse } from './census'
export { seenOf } from './conductor'
export type { Seen } from './conductor'
export { carried, limitsOf, misfitOf, STRIP_mm } from './connector'
export type { Connector, ConnectorKind, HoldPoint, Misfit } from './connector'
export { planJoint } from './joint'
export type { Conductor, JointPlan, Made } from './joint'
export {
  colourCommands,
  coreCountCommands,
  cutCommands,
  endsAt,
  joinCommands,
  leadColourCommands,
  looseCommands,
  newTroubles,
  newValveCommands,
} from './record'
export type { EndHere, Trouble } from './record'
export { brokenRules, wrongIn } from './rules'
export type { Breach, BreachCode } from './rules'
export { coloursInOrder, pinCommands, planRun, runPlanCommands, wireCommands } from './run-plan'
export type { PlannedCore, RunNeeds, RunPlan, Unwired } from './run-plan'
export { splitCommands, splitOf } from './split-common'
export type { CommonSplit } from './split-common'
export { wiringPlanCommands } from './wiring-plan'
export { leadsWaiting, missingHalfCommands, sparesHome } from './missing-half'
export type { SpareHome } from './missing-half'
export { settle } from './settle'
