export { CHECKS, checkOf } from './checks'
export type { Check, CheckEnd, CheckId, Look, LookCaution } from './checks'
export { readingsOf, SYMPTOMS } from './symptom'
export type { Asks, Symptom, SymptomReading, Told } from './symptom'
