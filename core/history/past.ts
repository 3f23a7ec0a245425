import {
  isOhms,
  standingReadings,
  testKey,
  visitsInOrder,
  type Facts,
  type OhmsReading,
  type OhmsTest,
  type Visit,
} from '../record'

/** An ohms reading of an earlier visit that was not struck out. */
export interface Past {
  readonly id: string
  readonly reading: OhmsReading
  readonly visit: Visit
  readonly acceptedByHand: boolean
}

/** Standing ohms readings by test, each list oldest first. */
export type PastByTest = ReadonlyMap<string, readonly Past[]>

/** All that was read before a visit, or ever where none is named. Of each visit the last reading of a test counts. */
export function pastOf(facts: Facts, before: string | null = null): PastByTest {
  const accepted = new Set(Object.values(facts.acceptances).map((a) => a.reading))
  const until = before === null ? Infinity : Date.parse(facts.visits[before]?.at ?? '')
  const past = new Map<string, Past[]>()
  for (const id of visitsInOrder(facts).reverse()) {
    const visit = facts.visits[id]!
    if (id === before || !(Date.parse(visit.at) < until)) continue
    for (const { id: of, reading } of standingReadings(facts, id)) {
      if (!isOhms(reading)) continue
      const key = testKey(reading.test)
      past.set(key, [...(past.get(key) ?? []), { id: of, reading, visit, acceptedByHand: accepted.has(of) }])
    }
  }
  return past
}

export const pastOfTest = (past: PastByTest, test: OhmsTest): readonly Past[] => past.get(testKey(test)) ?? []
