import { testKind } from './kind'

/** The coil fed from a tester's battery, its lead joint undone: whether it is heard. */
export const energise = testKind({
  kind: 'energise',
  on: 'coil',
  answer: 'heard',
  hunt: true,
  tool: 'tester',
  setup: { undone: 'lead' },
  clips: ['lead port', 'common port'],
})
