import { stateOf, type Scene, type State, type VerdictCode } from '../expect'
import type { Facts, OhmsTest } from '../record'
import { judgements, type SceneAt } from './baseline'
import { pastOf, type Past } from './past'

/** How every standing ohms reading stood when it was taken, by its id: one pass through all the years. */
export function statesOf(scene: Scene, sceneAt: SceneAt, facts: Facts): Map<string, State> {
  const states = new Map<string, State>()
  for (const past of pastOf(facts).values())
    for (const { past: p, judged } of judgements(scene, sceneAt, past[0]!.reading.test, past))
      states.set(p.id, stateOf(judged.verdict.code))
  return states
}

/** How a thread stands by what was read of it last. */
export interface Newest {
  readonly state: State
  readonly verdict: VerdictCode
  readonly past: Past
}

/** The newest standing reading of a thread, as it stood when it was taken; null where the thread was never read. */
export function newestOf(scene: Scene, sceneAt: SceneAt, test: OhmsTest, past: readonly Past[]): Newest | null {
  const all = judgements(scene, sceneAt, test, past)
  // Visits may overlap: of two people at one property the later reading counts, whoever came first.
  const last = all.reduce<(typeof all)[number] | null>(
    (newest, j) =>
      newest === null || Date.parse(j.past.reading.at) >= Date.parse(newest.past.reading.at) ? j : newest,
    null,
  )
  if (!last) return null
  const { code } = last.judged.verdict
  return { state: stateOf(code), verdict: code, past: last.past }
}
