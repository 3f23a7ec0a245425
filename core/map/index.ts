export { toLatLon, toLocal } from './frame'
export type { LatLon, Origin } from './frame'
export {
  bendCommands,
  drawCable,
  lengthsFromDrawing,
  markCommands,
  newPlaceCommands,
  placeCommands,
  removeCableCommands,
  removePlaceCommands,
  rounded,
} from './edit'
export { apart_m, drawnDistances_m, legsOf, length_m, lineOf, markLine, piece, stray_m, whereIs } from './route'
export type { Leg } from './route'
export { atPixel, pixelAt, placementOf } from './underlay'
export type { Placement } from './underlay'
export { provenRound, roundOnFoot } from './proven-round'
export type { ProvenRound } from './proven-round'
export { cableAlong, takeIn } from './take-in'
export type { Drawn, TakenIn } from './take-in'
