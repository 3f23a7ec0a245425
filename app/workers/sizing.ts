import { expose } from 'comlink'
import loadHighs from 'highs'
import binary from 'highs/runtime?url'
import { sizePath, type PathSizing } from '../../core/path'
import { choiceSolver, size, type ChoiceSolver, type SizingAnswer } from '../../core/sizing'
import { pathOf, type ControllerId, type Site } from '../../core/site'

let solver: Promise<ChoiceSolver> | null = null
const loaded = () => (solver ??= loadHighs({ locateFile: () => binary }).then(choiceSolver))
type Told = (best_cents: number | null, bound_cents: number) => void

const work = {
  /**
   * The cheapest sizes; `told` hears of the best so far and of what nothing can undercut. Stopped by ending the
   * worker.
   */
  async size(site: Site, anew: boolean, told: Told): Promise<SizingAnswer> {
    return size(site, await loaded(), { anew, onProgress: (best, bound) => told(best, bound) })
  },
  /** The same for the two-wire path of a controller; null where its profile does not allow volts to be told. */
  async path(site: Site, controller: ControllerId, anew: boolean, told: Told): Promise<PathSizing | null> {
    const path = pathOf(site, controller)
    const sized = path && sizePath(site, path, await loaded(), { anew, onProgress: (best, bound) => told(best, bound) })
    return sized?.ok ? sized.value : null
  },
}
export type SizingWork = typeof work

expose(work)
