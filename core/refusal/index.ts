export { parseWith } from './from-zod'
export { accepted, pathText, refusal, refused, unreachable } from './refusal'
export type { Outcome, Path, Refusal } from './refusal'
