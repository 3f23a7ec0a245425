import { expose } from 'comlink'
import { sceneOf, scenesOf, type State } from '../../core/expect'
import { statesOf } from '../../core/history'
import type { Facts } from '../../core/record'
import type { Site } from '../../core/site'

const work = {
  /** How every reading of a property stood when it was taken. */
  states(site: Site, facts: Facts): Record<string, State> {
    return Object.fromEntries(statesOf(sceneOf(site), scenesOf(site), facts))
  },
}
export type StatesWork = typeof work

expose(work)
