import { stationAt, type Site } from '../site'
import type { Reading, WiringState } from './kinds/reading'

/** A reading with the state that it was taken in, where that was looked to. */
export type StatedReading = Pick<Reading, 'test' | 'value' | 'state'>

/**
 * The states in which it fails, as readings say: those in which a zone that was on stayed dry. Empty where no state
 * was looked to.
 */
export function failingStates(site: Site, readings: readonly StatedReading[]): ReadonlySet<WiringState> {
  return new Set(
    readings.flatMap(({ test, value, state }) => {
      if (state === undefined || test.kind !== 'water' || value.kind !== 'waters') return []
      const own = stationAt(site, test.at)?.[1].valves ?? []
      return own.some((v) => value.valves.includes(v)) ? [] : [state]
    }),
  )
}
