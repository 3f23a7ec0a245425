import { testKind } from './kind'

/** A go/no-go tester on the lead and the common, leads off: its coil lamps. */
export const testerCoil = testKind({
  kind: 'tester_coil',
  on: 'terminal',
  answer: 'coilLamps',
  hunt: false,
  tool: 'tester',
  setup: { leads: 'off' },
})
