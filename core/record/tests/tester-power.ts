import { testKind } from './kind'

/** A go/no-go tester on the terminal with its station on: its 24 V lamp. */
export const testerPower = testKind({
  kind: 'tester_power',
  on: 'terminal',
  answer: 'powerLamp',
  hunt: false,
  tool: 'tester',
  setup: { leads: 'on' },
})
