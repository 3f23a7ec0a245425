import { testKey, type FieldTest, type StatedReading, type WiringState } from '../record'

/**
 * A test as it was taken where something fails in some states only: `elsewhere` in a state in which it does not fail,
 * `unsaid` where nobody looked to the state. Without either it is made in a state in which it fails.
 */
export type TakenTest = FieldTest & { readonly taken?: 'elsewhere' | 'unsaid' }

/** The test of a reading, with how it was taken where something fails in some states only. */
export function asTaken(
  { test, state }: Pick<StatedReading, 'test' | 'state'>,
  failing: ReadonlySet<WiringState>,
): TakenTest {
  if (failing.size === 0 || (state !== undefined && failing.has(state))) return test
  return { ...test, taken: state === undefined ? 'unsaid' : 'elsewhere' }
}

/** A text that is equal for tests that are the same and taken alike. */
export const takenKey = (test: TakenTest): string =>
  test.taken === undefined ? testKey(test) : `${testKey(test)} ${test.taken}`

/** What is seen at the part itself does not wait for a state. */
export const waitsForState = ({ kind }: FieldTest): boolean => kind !== 'look' && kind !== 'remake'
