import type { CabinetTest, OhmsTest, ReadingValue } from '../record'
import type { State } from './verdict'

/** Limits of what a controller gives, volts. A 24 V transformer measures 24–28 unloaded; over 30 it is a wrong one. */
const SUPPLY_V = { none: 1, low: 24, high: 28, wrong: 30 } as const
/** A terminal with its station on gives what the supply gives at that moment, within this. */
const TERMINAL_WITHIN_V = 2

export type CabinetCode =
  | 'supply_fits'
  | 'supply_none'
  | 'supply_low'
  | 'supply_high'
  | 'wrong_transformer'
  | 'volts_fit'
  | 'volts_low'
  | 'volts_none'
  | 'volts_high'
  | 'volts_without_supply'
  | 'click_heard'
  | 'click_missing'
  | 'lamp_good'
  | 'lamp_open'
  | 'lamp_short'
  | 'lamp_lit'
  | 'lamp_dark'

export interface CabinetVerdict {
  readonly code: CabinetCode
  readonly state: State
  readonly supply_V: number | null
}

/** What a check at the cabinet other than ohms says by itself. `supply_V` is what the supply read in the same job. */
export function judgeCabinet(
  test: Exclude<CabinetTest, OhmsTest>,
  value: ReadingValue,
  supply_V: number | null,
): CabinetVerdict {
  const say = (code: CabinetCode, state: State): CabinetVerdict => ({ code, state, supply_V })
  if (value.kind === 'heard') return value.heard ? say('click_heard', 'fits') : say('click_missing', 'fault')
  if (value.kind === 'lamp')
    return say(`lamp_${value.lamp}`, value.lamp === 'good' || value.lamp === 'lit' ? 'fits' : 'fault')
  if (value.kind !== 'volt') throw new Error(`judgeCabinet: a ${test.kind} test gives no ${value.kind}`)
  const { volt } = value
  if (volt > SUPPLY_V.wrong) return say('wrong_transformer', 'fault')
  if (test.kind === 'supply') {
    if (volt < SUPPLY_V.none) return say('supply_none', 'fault')
    if (volt < SUPPLY_V.low) return say('supply_low', 'doubtful')
    return volt > SUPPLY_V.high ? say('supply_high', 'doubtful') : say('supply_fits', 'fits')
  }
  if (supply_V === null) return say('volts_without_supply', 'none')
  if (volt < SUPPLY_V.none) return say('volts_none', 'fault')
  if (volt > supply_V + TERMINAL_WITHIN_V) return say('volts_high', 'doubtful')
  return volt >= supply_V - TERMINAL_WITHIN_V ? say('volts_fit', 'fits') : say('volts_low', 'fault')
}
