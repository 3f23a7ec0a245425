export { pathSectionsOf } from './path-strip'
export type { Bead, PathSection, PathStrip } from './path-strip'
export { sectionsOf } from './strip'
export type { Section, Strip, StripMark, StripRun } from './strip'
