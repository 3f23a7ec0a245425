import type { ProcedureText } from '../../record'
import { oneOf, WATERS, type StepText } from './choices'

const ZONE = oneOf('waters_well', 'waters_poorly', 'wrong_zone', 'dry_zone', 'waters_on')
/** What is seen of a zone that runs, the commonest first: one tap each. */
const SEEN = oneOf(
  ...['waters_well', 'head_broken', 'head_tilted', 'leaks', 'box_or_lid', 'wrong_zone', 'dry_zone', 'waters_on'],
)

/** Every thread cold, before anything has run. */
const COLD: readonly StepText[] = [
  { id: 'leads_off', hold: true, cautions: ['power', 'mains'] },
  { id: 'ohms', each: 'thread', hold: true, does: { kind: 'measure', test: 'ohms', to: 'common' } },
  { id: 'earth', each: 'thread', does: { kind: 'measure', test: 'ohms', to: 'earth' } },
  { id: 'at_box', each: 'hidden_coil', cautions: ['animals'], does: { kind: 'measure', test: 'coil_ohms' } },
  { id: 'leads_on', hold: true },
]
/** Then every station by itself, in the order of walking. */
const RUNNING: readonly StepText[] = [
  { id: 'master_click', each: 'station', if: ['has_master'], does: oneOf('heard', 'not_heard') },
  { id: 'click', each: 'station', does: { kind: 'measure', test: 'click' } },
  { id: 'zone', each: 'station', cautions: ['animals'], does: ZONE },
  { id: 'volts', each: 'station', does: { kind: 'measure', test: 'volts' } },
]
const RELAY: StepText = { id: 'relay', if: ['has_relay'], hold: true, cautions: ['pump'] }

/** Whole properties: taken over, opened for the season, walked round. */
export const COMMISSION: readonly ProcedureText[] = [
  {
    id: 'commission',
    family: 'commission',
    on: 'controller',
    kit: ['meter', 'spare_battery', 'lid_tool', 'flags', 'light', 'labels'],
    steps: [
      { id: 'pause', hold: true },
      { id: 'supply', cautions: ['mains'], does: { kind: 'measure', test: 'supply' } },
      ...COLD,
      RELAY,
      ...RUNNING,
      { id: 'names', floats: true },
      { id: 'defects', floats: true, does: { kind: 'text' } },
      { id: 'accept', hold: true, does: { kind: 'settle' } },
      { id: 'dial', hold: true },
    ],
  },
  {
    id: 'season_start',
    family: 'commission',
    on: 'controller',
    kit: ['meter', 'spare_battery', 'lid_tool', 'flags', 'light', 'wrench'],
    steps: [
      { id: 'pause', hold: true },
      { id: 'supply', cautions: ['mains'], does: { kind: 'measure', test: 'supply' } },
      { id: 'sensor', if: ['has_sensor'], does: oneOf('says_so', 'says_nothing') },
      { id: 'water_on', cautions: ['pressure', 'eyes'] },
      { id: 'master', if: ['has_master'], does: WATERS },
      { id: 'flow_controls', cautions: ['animals'] },
      ...COLD,
      RELAY,
      ...RUNNING,
      { id: 'dial', hold: true },
    ],
  },
  {
    id: 'wet_check',
    family: 'commission',
    on: 'controller',
    kit: ['flags', 'lid_tool', 'light'],
    steps: [
      { id: 'program', hold: true },
      RELAY,
      { id: 'zone', each: 'station', cautions: ['traffic'], minutes: 3, does: SEEN },
      { id: 'defects', floats: true, does: { kind: 'text' } },
      { id: 'boxes', floats: true, cautions: ['animals', 'trip'] },
      { id: 'restored', hold: true },
    ],
  },
]
