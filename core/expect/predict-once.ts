import { testKey, type Meter, type OhmsTest } from '../record'
import { predict, type Expectation } from './predict'
import type { Scene } from './scene'

const made = new WeakMap<Scene, Map<string, Expectation>>()

/** `predict`, worked out once for a scene that lives long: a page asks for the same figures again and again. */
export function predictOnce(scene: Scene, test: OhmsTest, meter: Meter): Expectation {
  if (!made.has(scene)) made.set(scene, new Map())
  const kept = made.get(scene)!
  const { accuracy_ratio, offset_ohm } = meter
  const key = `${testKey(test)} ${accuracy_ratio} ${offset_ohm}`
  if (!kept.has(key)) kept.set(key, predict(scene, test, meter))
  return kept.get(key)!
}
