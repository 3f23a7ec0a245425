import { sequencersOf } from '../sequencer'
import { getOrThrow, type ControllerId, type Site } from '../site'
import { keptApart } from './apart'
import { inPasses, type Wanted } from './lay-out'
import { fitted, type Changed } from './mend'
import { byBox, byVolts } from './order'
import { rulesOf } from './on-record'
import { startsOf, type Program } from './program'
import type { StationOn } from './station'

export type ProposalCode = 'fewest_starts' | 'apart' | 'by_box' | 'by_volts'

/** A way in which a schedule could be other than it is; nothing of it is done unasked. */
export interface Proposal {
  readonly code: ProposalCode
  readonly changed: Changed
}
type Programs = readonly Program<StationOn>[]

/**
 * What could be done with a schedule: all in its hours with the fewest starts, a station between the turns of a
 * sequencer, and the order of walking from box to box or of the volts at the coils.
 * @returns only what differs from the schedule as it is
 */
export function proposalsFor(site: Site, controller: ControllerId, programs: Programs): Proposal[] {
  const reorder = (
    code: ProposalCode,
    order: (runs: Programs[number]['runs']) => Programs[number]['runs'],
  ): Proposal => ({
    code,
    changed: { programs: programs.map((p) => ({ ...p, runs: order(p.runs) })) },
  })
  const sequencers = sequencersOf(site, controller)
  const fewest = fewestStarts(site, controller, programs)
  return [
    ...(fewest ? [{ code: 'fewest_starts' as const, changed: fewest }] : []),
    ...(sequencers.length > 0 ? [reorder('apart', (runs) => keptApart(runs, sequencers) ?? runs)] : []),
    reorder('by_box', byBox(site, controller)),
    reorder('by_volts', byVolts(site, controller)),
  ].filter((p) => JSON.stringify(p.changed.programs) !== JSON.stringify(programs))
}

/**
 * The minutes of all starts of a program in one start, or in as many as the cap on a run leaves, one after the other
 * from when it may water. Null where nothing runs, or it does not all fit.
 */
function fewestStarts(site: Site, controller: ControllerId, programs: Programs): Changed | null {
  const { window_s, mostMinutes } = getOrThrow(site.controllers, controller).scheduling
  const runs = (p: Programs[number]) => p.days !== null && startsOf(p).length > 0
  const wanted = programs.filter(runs).map((p): Wanted => {
    const whole = {
      ...p,
      starts_s: [0],
      runs: p.runs.map((r) => ({ ...r, minutes: r.minutes * startsOf(p).length })),
    }
    return mostMinutes === null ? { program: whole, passes: 1 } : inPasses(whole, mostMinutes)
  })
  const fits = window_s && wanted.length > 0 ? fitted(wanted, window_s, rulesOf(site, controller).delay_s) : null
  if (!fits) return null
  const next = [...fits.programs]
  return { programs: programs.map((p) => (runs(p) ? next.shift()! : p)) }
}
