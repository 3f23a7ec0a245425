import { testKind } from './kind'

/** Ohms of a coil by itself, its lead joint undone. */
export const coilOhms = testKind({
  kind: 'coil_ohms',
  on: 'coil',
  answer: 'ohms',
  hunt: true,
  tool: 'meter',
  setup: { undone: 'lead' },
  clips: ['lead port', 'common port'],
})
