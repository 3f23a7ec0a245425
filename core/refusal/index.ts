export { parseWith } from './from-zod'
export { accepted, coded, pathText, refusal, refused, unreachable } from './refusal'
export type { RefusalCode } from './codes'
export type { Coded, Outcome, Path, Refusal } from './refusal'
