import {
  isOhms,
  standingReadings,
  testKey,
  jobsInOrder,
  type Facts,
  type OhmsReading,
  type OhmsTest,
  type Job,
} from '../record'

/** An ohms reading of an earlier job that was not struck out. */
export interface Past {
  readonly id: string
  readonly reading: OhmsReading
  readonly job: Job
  readonly acceptedByHand: boolean
}

/** Standing ohms readings by test, each list oldest first. */
export type PastByTest = ReadonlyMap<string, readonly Past[]>

/** All that was read before a job, or ever where none is named. Of each job the last reading of a test counts. */
export function pastOf(facts: Facts, before: string | null = null): PastByTest {
  const accepted = new Set(Object.values(facts.acceptances).map((a) => a.reading))
  const until = before === null ? Infinity : Date.parse(facts.jobs[before]?.at ?? '')
  const past = new Map<string, Past[]>()
  for (const id of jobsInOrder(facts).reverse()) {
    const job = facts.jobs[id]!
    if (id === before || !(Date.parse(job.at) < until)) continue
    for (const { id: of, reading } of standingReadings(facts, id)) {
      if (!isOhms(reading)) continue
      const key = testKey(reading.test)
      past.set(key, [...(past.get(key) ?? []), { id: of, reading, job, acceptedByHand: accepted.has(of) }])
    }
  }
  return past
}

export const pastOfTest = (past: PastByTest, test: OhmsTest): readonly Past[] => past.get(testKey(test)) ?? []
