import { testKind } from './kind'

/** The terminal's lead moved to another terminal, and that one switched on: whether the valve is heard. */
export const swapTest = testKind({
  kind: 'swap_test',
  on: 'moved',
  answer: 'heard',
  hunt: true,
  setup: { leads: 'on' },
})
