import { expose } from 'comlink'
import { asIf, marginsOf, reachTable, type Margins, type ReachTable, type WhatIf } from '../../core/sizing'
import type { Site } from '../../core/site'

const work = {
  /** Every thread at its worst, as the property would be. */
  margins(site: Site, what: WhatIf): Margins {
    return marginsOf(asIf(site, what))
  },
  reach(site: Site, what: WhatIf): ReachTable | null {
    return reachTable(asIf(site, what))
  },
}
export type MarginsWork = typeof work

expose(work)
