import { stateOf, type Scene, type State } from '../expect'
import type { Facts } from '../record'
import { judgements, type SceneAt } from './baseline'
import { pastOf } from './past'

/** How every standing ohms reading stood when it was taken, by its id: one pass through all the years. */
export function statesOf(scene: Scene, sceneAt: SceneAt, facts: Facts): Map<string, State> {
  const states = new Map<string, State>()
  for (const past of pastOf(facts).values())
    for (const { past: p, judged } of judgements(scene, sceneAt, past[0]!.reading.test, past))
      states.set(p.id, stateOf(judged.verdict.code))
  return states
}
