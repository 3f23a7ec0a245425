export { partsNamed, READ_SEVERITY, sightingsIn, USUAL_SEVERITY } from './standing'
export type { Standing } from './standing'
