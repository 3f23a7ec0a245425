import { testKind } from './kind'

/**
 * The lead earthed at the cabinet, off its screw; from its bare end at the box, its joint undone, to a rod there:
 * soil, or open where the lead is cut.
 */
export const leadThrough = testKind({
  kind: 'lead_through',
  on: 'coil',
  answer: 'ohms',
  hunt: true,
  tool: 'meter',
  setup: { leads: 'off', set: 'earthed', undone: 'lead' },
  clips: ['lead core', 'screw'],
  danger: 'earth',
  says: ['soil', 'open'],
})
