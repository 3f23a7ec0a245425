import { expose } from 'comlink'
import { climateOf } from '../../core/circuit'
import {
  conclude,
  describe,
  sceneOf,
  type Described,
  type SweepReading,
  type Scene,
  type State,
} from '../../core/expect'
import { statesOf, type SceneAt } from '../../core/history'
import type { Facts } from '../../core/record'
import type { ControllerId, Site } from '../../core/site'

/** A sweep's joint conclusion in a few plain values. */
export interface Concluded {
  readonly described: Described[]
  readonly severalOrWrong: boolean
}

const work = {
  /** Explains the readings of one controller's sweep at the temperatures of its job. */
  concludeSweep(
    site: Site,
    controller: ControllerId,
    ground_C: number,
    coil_C: number | null,
    observations: SweepReading[],
  ): Concluded {
    const scene = sceneOf(site, climateOf(site, ground_C, coil_C))
    const joint = conclude(scene, observations)
    return { described: describe(scene, controller, observations, joint), severalOrWrong: joint.severalOrWrong }
  },
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
export type ConcludeWork = typeof work

expose(work)
