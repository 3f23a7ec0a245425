import { testKind } from './kind'

/** Whether a valve is heard when its terminal is switched on. */
export const click = testKind({ kind: 'click', on: 'terminal', answer: 'heard', hunt: false, setup: { leads: 'on' } })
