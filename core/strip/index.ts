export { sectionsOf } from './strip'
export type { Section, Strip, StripMark, StripRun } from './strip'
