import { testKind } from './kind'

/** Ohms from the bare end of the coil's lead to its common with a jumper from the lead to C at the cabinet. */
export const loopLead = testKind({
  kind: 'loop_lead',
  on: 'coil',
  answer: 'ohms',
  hunt: true,
  tool: 'meter',
  setup: { leads: 'off', set: 'jumper', undone: 'lead' },
  clips: ['lead core', 'common port'],
})
