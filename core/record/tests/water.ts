import { testKind } from './kind'

/** Which valves water when a terminal is switched on: the symptom. */
export const water = testKind({ kind: 'water', on: 'terminal', answer: 'waters', hunt: true, setup: { leads: 'on' } })
