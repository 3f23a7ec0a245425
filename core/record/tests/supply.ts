import { testKind } from './kind'

/** Volts the transformer gives at this moment, at the controller's own terminals. */
export const supply = testKind({
  kind: 'supply',
  on: 'controller',
  answer: 'volts',
  hunt: false,
  tool: 'meter',
  danger: 'on',
})
