import { expose } from 'comlink'
import {
  changeCommands,
  drawUpsets,
  JUDGED_days,
  mendOf,
  programsOf,
  programTurns,
  proposalsFor,
  review,
  running,
  sequencerYear,
  voltsAt,
  weekOf,
  wetCheck,
  type CalendarDate,
  type Changed,
  type Proposal,
  type ScheduleFinding,
  type SequencerYear,
  type StationOn,
  type VoltsThen,
  type Week,
  type WetCheck,
  type WetCheckRules,
} from '../../core/schedule'
import type { Outcome } from '../../core/refusal'
import {
  fitSequencer,
  sequencersOf,
  type Fit,
  type FitWanted,
  type Sequenced,
  type SequencerEvent,
} from '../../core/sequencer'
import { applyBatch, getOrThrow, type ControllerId, type Site } from '../../core/site'

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

/** A sequencer as it would be fitted, and what the programs, moved as they would be, do with it. */
export interface FitSeen {
  readonly fit: Outcome<Fit>
  readonly found: readonly ScheduleFinding[]
  /** The tags of the screws that feed it. */
  readonly terminals: readonly string[]
}

function fit(site: Site, wanted: FitWanted, from: CalendarDate): FitSeen {
  const made = fitSequencer(site, wanted)
  const next = made.ok ? applyBatch(site, made.value.commands) : null
  if (!made.ok || !next?.ok) return { fit: made, found: [], terminals: [] }
  const { controller } = wanted.host
  const programs = programsOf(next.value.site, controller)
  const reviewed = review(next.value.site, controller, programs, { from, days: JUDGED_days })
  const found = reviewed.ok ? reviewed.value.findings : []
  const { sequencer } = made.value
  const { terminals } = getOrThrow(next.value.site.controllers, controller)
  return {
    fit: made,
    found: found.filter((f) => f.about.sequencer === sequencer),
    terminals: sequencersOf(next.value.site, controller)
      .filter((q) => q.device === sequencer)
      .flatMap((q) => q.fedBy.map((id) => terminals[id]!.tag)),
  }
}

/**
 * How a year is drawn: how often power fails and somebody runs a screw by hand, and how often it is brought into step.
 */
export interface YearDrawn {
  readonly outages: number
  readonly byHand: number
  readonly seed: number
  readonly syncEvery_days: number | null
}
const YEAR_days = 365

/** A year from a date on at each sequencer of a controller. */
function years(
  site: Site,
  controller: ControllerId,
  from: CalendarDate,
  { syncEvery_days, ...drawn }: YearDrawn,
): { sequenced: Sequenced; year: SequencerYear }[] {
  const run = running(site, controller, programsOf(site, controller), { from, days: YEAR_days })
  if (!run.ok) return []
  const upsets = drawUpsets(run.value.clock, { from, days: YEAR_days }, drawn)
  return sequencersOf(site, controller).map((sequenced) => ({
    sequenced,
    year: sequencerYear(site, controller, sequenced, run.value, { upsets, syncEvery_days }),
  }))
}

const work = {
  see,
  years,
  /** The turns that the programs have given a sequencer, from a second of UTC until another. */
  turns: (site: Site, controller: ControllerId, sequenced: Sequenced, from_s: number, to_s: number): SequencerEvent[] =>
    programTurns(site, controller, sequenced, from_s, to_s),
  fit,
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
