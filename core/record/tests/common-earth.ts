import { testKind } from './kind'

/** The bare end of the common that comes in at a coil's box to earth, all off at the cabinet, its joint undone. */
export const commonEarth = testKind({
  kind: 'common_earth',
  on: 'coil',
  answer: 'ohms',
  hunt: true,
  tool: 'meter',
  setup: { leads: 'off', undone: 'common' },
  clips: ['common core', 'C'],
})
