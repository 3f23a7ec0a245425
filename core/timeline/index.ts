export { timelineOf } from './timeline'
export type { Change, Happening, HappeningKind } from './timeline'
