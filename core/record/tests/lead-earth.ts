import { testKind } from './kind'

/** The bare end of the coil's lead to earth, off at the cabinet and off the coil. */
export const leadEarth = testKind({
  kind: 'lead_earth',
  on: 'coil',
  answer: 'ohms',
  hunt: true,
  tool: 'meter',
  setup: { leads: 'off', undone: 'lead' },
  clips: ['lead core', 'screw'],
})
