export { partsNamed, sightingsIn, USUAL_SEVERITY } from './standing'
export type { Standing } from './standing'
