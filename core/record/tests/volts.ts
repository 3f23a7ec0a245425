import { testKind } from './kind'

/** Volts from C to a terminal with its station on and its valve connected. */
export const volts = testKind({
  kind: 'volts',
  on: 'terminal',
  answer: 'volts',
  hunt: false,
  tool: 'meter',
  setup: { leads: 'on' },
})
