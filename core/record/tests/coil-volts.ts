import { testKind } from './kind'

/** Volts across a coil with its own station on and the coil connected. */
export const coilVolts = testKind({
  kind: 'coil_volts',
  on: 'coil',
  answer: 'volts',
  hunt: true,
  tool: 'meter',
  setup: { leads: 'on', set: 'on' },
})
