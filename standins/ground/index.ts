export { groundOf } from './ground'
export type { Ground, Pose } from './ground'
export { wandOn } from './wand'
export type { WandSession } from './wand'
