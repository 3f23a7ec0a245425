import { expose } from 'comlink'
import {
  changeCommands,
  JUDGED_days,
  mendOf,
  programsOf,
  proposalsFor,
  review,
  running,
  voltsAt,
  weekOf,
  wetCheck,
  type CalendarDate,
  type Changed,
  type Proposal,
  type ScheduleFinding,
  type StationOn,
  type VoltsThen,
  type Week,
  type WetCheck,
  type WetCheckRules,
} from '../../core/schedule'
import { applyBatch, type ControllerId, type Site } from '../../core/site'

/** A finding with the change that mends it; null where no change of programs does. */
export interface FoundMend {
  readonly finding: ScheduleFinding
  readonly mend: Changed | null
}
/** What the programs of a controller run, and what of it is wrong. */
export interface ScheduleSeen {
  readonly week: Week
  readonly found: readonly FoundMend[]
}
/** A proposal with what would run, and be wrong, then. */
export interface ProposalSeen extends Proposal {
  readonly seen: ScheduleSeen
}

function see(site: Site, controller: ControllerId, from: CalendarDate, days: number): ScheduleSeen | null {
  const programs = programsOf(site, controller)
  const shown = running(site, controller, programs, { from, days })
  const reviewed = review(site, controller, programs, { from, days: Math.max(days, JUDGED_days) })
  if (!shown.ok || !reviewed.ok) return null
  const mending = { site, controller, programs, reviewed: reviewed.value }
  return {
    week: weekOf(shown.value, from),
    found: reviewed.value.findings.map((finding) => ({ finding, mend: mendOf(mending, finding) })),
  }
}

const work = {
  see,
  propose(site: Site, controller: ControllerId, from: CalendarDate, days: number): ProposalSeen[] {
    return proposalsFor(site, controller, programsOf(site, controller)).flatMap((proposal) => {
      let tried = 0
      const commands = changeCommands(site, controller, proposal.changed, () => `tried-${++tried}`)
      const made = applyBatch(site, commands)
      const seen = made.ok ? see(made.value.site, controller, from, days) : null
      return seen ? [{ ...proposal, seen }] : []
    })
  },
  /** The walk of a wet check, with how short any other could be. */
  wet: (site: Site, controller: ControllerId, rules: WetCheckRules): WetCheck => wetCheck(site, controller, rules),
  /** What the wiring gives stations that run at once, the last of them just starting. */
  volts: (site: Site, controller: ControllerId, on: readonly StationOn[]): VoltsThen => voltsAt(site, controller, on),
}
export type ScheduleWork = typeof work

expose(work)
