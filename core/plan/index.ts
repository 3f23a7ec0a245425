export { commandsBetween } from './difference'
export { CELLS, cellCommands, sizeCommands } from './cell'
export type { Cell } from './cell'
export { listCommands, removalCommands, rowsOf, withoutDcOnAc } from './list'
export type { ListedRow } from './list'
export { newRunCommands, readWay, runCommands, wayCommands, wayText } from './way'
export type { WrittenWay } from './way'
export { MASTER, RELAY, stationRow } from './row'
export type { StationRow } from './row'
export {
  addCore,
  bringCore,
  capLoose,
  cutAt,
  heal,
  isLaid,
  runsOf,
  setDistance,
  spareCore,
  stopAt,
  tapCommon,
} from './run'
export type { PlanRun } from './run'
export { coreEnd, create, freeId, join, jointOf, part, portEnd, remove, set } from './work'
export type { Work } from './work'
