import { expose } from 'comlink'
import loadHighs from 'highs'
import binary from 'highs/runtime?url'
import { choiceSolver, size, type ChoiceSolver, type SizingAnswer } from '../../core/sizing'
import type { Site } from '../../core/site'

let solver: Promise<ChoiceSolver> | null = null

const work = {
  /**
   * The cheapest sizes; `told` hears of the best so far and of what nothing can undercut. Stopped by ending the
   * worker.
   */
  async size(
    site: Site,
    anew: boolean,
    told: (best_cents: number | null, bound_cents: number) => void,
  ): Promise<SizingAnswer> {
    solver ??= loadHighs({ locateFile: () => binary }).then(choiceSolver)
    return size(site, await solver, { anew, onProgress: (best, bound) => told(best, bound) })
  },
}
export type SizingWork = typeof work

expose(work)
