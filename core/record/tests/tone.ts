import { testKind } from './kind'

/** A tone put on the terminal's lead, leads off: how far along the conductor it is lost. */
export const tone = testKind({
  kind: 'tone',
  on: 'terminal',
  answer: 'tone',
  hunt: true,
  tool: 'tracer',
  setup: { leads: 'off' },
})
