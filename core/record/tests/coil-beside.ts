import { testKind } from './kind'

/** Volts across a coil while another terminal than its own is on: whether current strays to it. */
export const coilBeside = testKind({
  kind: 'coil_beside',
  on: 'beside',
  answer: 'volts',
  hunt: true,
  tool: 'meter',
  setup: { leads: 'on' },
})
