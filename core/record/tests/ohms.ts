import { testKind } from './kind'

/** An ohms measurement between two probe points with the conductors off the controller; to earth where one is earth. */
export const ohms = testKind({
  kind: 'ohms',
  on: 'points',
  answer: 'ohms',
  hunt: false,
  tool: 'meter',
  setup: { leads: 'off' },
})
