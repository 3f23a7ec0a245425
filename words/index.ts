export { coreEn } from './core-en'
export { say, sayRefusal } from './say'
export type { Speaker, Translate } from './say'
