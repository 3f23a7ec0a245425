import { corrected_ohm, predictOnce, type Scene, type State } from '../expect'
import type { Meter, OhmsReading, OhmsTest, Reading, ReadingValue } from '../record'
import { error_ohm } from './baseline'

/** One test in two sweeps. `earlier_ohm` is brought to the temperatures of the later one; null for open. */
export interface Compared {
  readonly code: 'steady' | 'changed' | 'opened' | 'closed_again' | 'both_open'
  readonly state: State
  readonly earlier_ohm: number | null
  readonly later_ohm: number | null
  readonly change_ohm: number | null
}

/**
 * What a sound thread reads at the temperatures of now over what it read at those of then; 1 where neither is known.
 */
export function warmed_ratio(sceneThen: Scene, sceneNow: Scene, test: OhmsTest, meter: Meter): number {
  const [then, now] = [predictOnce(sceneThen, test, meter), predictOnce(sceneNow, test, meter)]
  return then.kind === 'ohms' && now.kind === 'ohms' ? now.expected_ohm / then.expected_ohm : 1
}

/** An earlier reading as another meter would show it at the temperatures of now. */
export function asReadNow(earlier: Reading, sceneThen: Scene, sceneNow: Scene, meter: Meter): ReadingValue {
  const { test, value } = earlier
  if (test.kind !== 'ohms' || value.kind !== 'ohm') return value
  const ohm = corrected_ohm(value.ohm, earlier.meter) * warmed_ratio(sceneThen, sceneNow, test, meter)
  return { kind: 'ohm', ohm: ohm + meter.leadZero_ohm }
}

/** Two readings of the same test side by side: steady within the errors of both meters, changed beyond. */
export function compareReadings(earlier: OhmsReading, later: OhmsReading, sceneThen: Scene, sceneNow: Scene): Compared {
  const ohm = ({ value, meter }: OhmsReading) => (value.kind === 'ohm' ? corrected_ohm(value.ohm, meter) : null)
  const scale = warmed_ratio(sceneThen, sceneNow, later.test, later.meter)
  const was = ohm(earlier)
  const [earlier_ohm, later_ohm] = [was === null ? null : was * scale, ohm(later)]
  const told = {
    earlier_ohm,
    later_ohm,
    change_ohm: earlier_ohm === null || later_ohm === null ? null : later_ohm - earlier_ohm,
  }
  if (told.change_ohm === null || later_ohm === null) {
    if (earlier_ohm === null && later_ohm === null) return { ...told, code: 'both_open', state: 'fault' }
    return later_ohm === null
      ? { ...told, code: 'opened', state: 'fault' }
      : { ...told, code: 'closed_again', state: 'fits' }
  }
  const steady = Math.abs(told.change_ohm) <= error_ohm(later_ohm, earlier.meter) + error_ohm(later_ohm, later.meter)
  return { ...told, code: steady ? 'steady' : 'changed', state: steady ? 'fits' : 'doubtful' }
}
