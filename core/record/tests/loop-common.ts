import { testKind } from './kind'

/** The same from the bare end of the common that comes in to the lead, the common's joint undone. */
export const loopCommon = testKind({
  kind: 'loop_common',
  on: 'coil',
  answer: 'ohms',
  hunt: true,
  tool: 'meter',
  setup: { leads: 'off', set: 'jumper', undone: 'common' },
  clips: ['common core', 'lead middle'],
})
