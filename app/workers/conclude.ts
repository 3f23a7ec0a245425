import { expose } from 'comlink'
import { climateOf } from '../../core/circuit'
import { conclude, describe, sceneOf, type Described, type Observation } from '../../core/expect'
import type { ControllerId, Site } from '../../core/site'

/** A sweep's joint conclusion in a few plain values. */
export interface Concluded { readonly described: Described[]; readonly severalOrWrong: boolean }

const work = {
  /** Explains the readings of one controller's sweep at the temperatures of its visit. */
  concludeSweep(site: Site, controller: ControllerId, ground_C: number, coil_C: number | null, observations: Observation[]): Concluded {
    const scene = sceneOf(site, climateOf(site, ground_C, coil_C))
    const joint = conclude(scene, observations)
    return { described: describe(scene, controller, observations, joint), severalOrWrong: joint.severalOrWrong }
  },
}
export type ConcludeWork = typeof work

expose(work)
