import type { ProcedureText } from '../../record'
import { oneOf } from './choices'

/** Putting a tone on a conductor, and taking it off again. */
export const TRACE: readonly ProcedureText[] = [
  {
    id: 'hook_up',
    family: 'trace',
    on: 'terminal',
    kit: ['tracer', 'stake', 'mallet', 'spare_battery', 'meter', 'screwdriver', 'flags'],
    steps: [
      { id: 'kit' },
      { id: 'off', hold: true, cautions: ['transmitter'] },
      { id: 'power', hold: true, cautions: ['power', 'mains'] },
      { id: 'leads', hold: true },
      { id: 'dead_volts', hold: true, does: { kind: 'figure', quantity: 'V', low: 0, high: 0.5 } },
      { id: 'dead_earth', hold: true, does: { kind: 'figure', quantity: 'V', low: 0, high: 0.5 } },
      { id: 'stake', cautions: ['buried'] },
      { id: 'clips', hold: true, cautions: ['transmitter', 'lightning'] },
      { id: 'on', cautions: ['transmitter'] },
      { id: 'output', does: oneOf('in_band', 'below', 'pegged') },
      { id: 'ground', when: [{ step: 'output', is: ['below'] }] },
      { id: 'down', when: [{ step: 'output', is: ['pegged'] }] },
      { id: 'walk', cautions: ['traffic', 'animals'] },
      { id: 'move' },
    ],
  },
  {
    id: 'pack_up',
    family: 'trace',
    on: 'controller',
    kit: ['tracer', 'stake'],
    steps: [
      { id: 'off', hold: true, cautions: ['transmitter'] },
      { id: 'clips' },
      { id: 'stake' },
      { id: 'leads_back', cautions: ['power'] },
      { id: 'coiled' },
      { id: 'batteries', does: oneOf('battery_good', 'battery_low') },
    ],
  },
  {
    id: 'two_people',
    family: 'trace',
    on: 'cable',
    suits: 'multicore',
    kit: ['tracer', 'meter', 'labels', 'caps'],
    steps: [
      { id: 'who', does: { kind: 'text' } },
      { id: 'unused', hold: true, cautions: ['power'] },
      { id: 'tone_off', hold: true, cautions: ['transmitter'] },
      { id: 'call', cautions: ['transmitter'] },
      { id: 'tagged' },
      { id: 'off', hold: true },
    ],
  },
]
