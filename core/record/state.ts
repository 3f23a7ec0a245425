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

/**
 * The readings that can speak against a fault: where it fails in one state only, not those that were taken in another,
 * since the fault need not show in them.
 */
export function readingsThatSpeak<T extends StatedReading>(site: Site, readings: readonly T[]): readonly T[] {
  const failing = failingStates(site, readings)
  return failing.size === 0 ? readings : readings.filter(({ state }) => state === undefined || failing.has(state))
}
