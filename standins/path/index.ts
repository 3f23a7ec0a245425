export { drawPathFault } from './path-fault'
export type { RealPathFault } from './path-fault'
export { pathFieldOf } from './path-field'
export type { PathField } from './path-field'
