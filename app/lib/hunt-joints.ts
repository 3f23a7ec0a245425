import { entries, type Site, type SpliceId } from '../../core/site'

/** The joints that can be looked at: neither landings nor caps. */
export const jointKeys = (site: Site): SpliceId[] =>
  entries(site.splices)
    .filter(([, s]) => s.connector !== 'terminal' && s.ends.length > 1)
    .map(([id]) => id)
