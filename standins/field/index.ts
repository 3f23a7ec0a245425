export { fieldOf } from './field'
export type { Field } from './field'
export { sweepOf } from './sweep'
