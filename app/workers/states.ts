import { expose } from 'comlink'
import { climateOf } from '../../core/circuit'
import { sceneOf, type Scene, type State } from '../../core/expect'
import { statesOf, type SceneAt } from '../../core/history'
import type { Facts } from '../../core/record'
import type { Site } from '../../core/site'

const work = {
  /** How every reading of a property stood when it was taken. */
  states(site: Site, facts: Facts): Record<string, State> {
    const made = new Map<string, Scene>()
    const sceneAt: SceneAt = (ground_C, coil_C) => {
      const key = `${ground_C} ${coil_C}`
      const scene = made.get(key) ?? sceneOf(site, climateOf(site, ground_C, coil_C))
      made.set(key, scene)
      return scene
    }
    return Object.fromEntries(statesOf(sceneOf(site), sceneAt, facts))
  },
}
export type StatesWork = typeof work

expose(work)
