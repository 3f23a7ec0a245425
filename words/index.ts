export { coreEn } from './core-en'
export { say, sayRefusal, whereText } from './say'
export type { Speaker, Translate } from './say'
