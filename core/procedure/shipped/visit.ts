import type { ProcedureText } from '../../record'
import { oneOf } from './choices'

/** What every visit begins and ends with. */
export const VISIT: readonly ProcedureText[] = [
  {
    id: 'arrive',
    family: 'visit',
    on: 'property',
    kit: [
      ...(['meter', 'spare_battery', 'tester', 'tracer', 'stake', 'connectors', 'spare_coil', 'o_rings'] as const),
      ...(['lid_tool', 'flags', 'light'] as const),
    ],
    steps: [
      { id: 'kit', floats: true },
      { id: 'weather', cautions: ['lightning'] },
      {
        id: 'temporary',
        each: 'temporary',
        does: oneOf('stays', 'undone'),
        deed: 'temporary_ends',
      },
      { id: 'changed', floats: true, does: { kind: 'text' } },
      { id: 'photo', floats: true, each: 'controller', does: { kind: 'photo' }, cautions: ['mains'] },
      {
        id: 'pause',
        each: 'controller',
        hold: true,
        does: oneOf('paused_auto', 'was_off', 'left_running'),
      },
      { id: 'ground', floats: true, does: { kind: 'figure', quantity: 'C', low: -10, high: 45 } },
    ],
  },
  {
    id: 'leave',
    family: 'visit',
    on: 'property',
    kit: ['lid_tool'],
    steps: [
      { id: 'leads' },
      { id: 'counted', floats: true },
      { id: 'boxes', cautions: ['animals', 'trip'] },
      {
        id: 'temporary_more',
        floats: true,
        does: oneOf('nothing_left', 'something_left'),
      },
      {
        id: 'temporary_what',
        when: [{ step: 'temporary_more', is: ['something_left'] }],
        does: { kind: 'text' },
        deed: 'temporary_begins',
      },
      { id: 'owner', floats: true },
      {
        id: 'dial',
        each: 'controller',
        hold: true,
        does: oneOf('back_to_auto', 'left_off', 'not_touched'),
      },
      { id: 'next', floats: true, does: { kind: 'day' } },
    ],
  },
]
