import { lastOutput, poweredTurns, type Interval, type Powered, type Sequenced } from '../sequencer'
import { stationAt, type ControllerId, type Site } from '../site'
import { localText, shownAt } from './clock'
import type { CalendarDate } from './days'
import type { Running } from './on-record'
import type { Upset } from './upsets'

/** A date at a sequencer, by output: seconds that its valve was meant to have, and those it had. */
export interface SequencerDay {
  readonly date: CalendarDate
  readonly meant_s: readonly number[]
  readonly had_s: readonly number[]
  /** A run gave its water to another valve than it was meant for. */
  readonly isWrong: boolean
}
/** What becomes of the programs at a sequencer, valve by valve. */
export interface SequencerYear {
  /** Those on which something runs. */
  readonly days: readonly SequencerDay[]
  readonly meant_s: readonly number[]
  readonly had_s: readonly number[]
  /** Each with whether it put the count out of step, or, where it was out, otherwise out. */
  readonly upsets: readonly (Upset & { readonly at: string; readonly shifts: boolean })[]
}

/** A device stays in step until something comes between: so many days apart it is brought back, or never. */
export interface YearAsked {
  readonly upsets: readonly Upset[]
  readonly syncEvery_days: number | null
}
const DAY_s = 86_400

/**
 * Runs the programs over a sequencer that begins in step: it steps when power comes, whoever brought it, and is away
 * while the property has none.
 */
export function sequencerYear(
  site: Site,
  controller: ControllerId,
  sequenced: Sequenced,
  { ran, clock }: Running,
  { upsets, syncEvery_days }: YearAsked,
): SequencerYear {
  const runs = ran.runs.filter((r) => r.station.address === null && sequenced.fedBy.includes(r.station.terminal))
  const syncs = syncTimes(runs[0]?.start_s ?? 0, runs.at(-1)?.end_s ?? 0, syncEvery_days)
  const turnsWith = (happened: readonly Upset[]) => turnsBetween(sequenced, runs.map(asInterval), happened, syncs)
  const turns = turnsWith(upsets)
  const inStep = turnsWith([])
  const outputs = sequenced.outputs.length
  const days = new Map<CalendarDate, { meant_s: number[]; had_s: number[]; isWrong: boolean }>()
  const dayOf = (at_s: number) => {
    const { date } = shownAt(clock, at_s)
    const day = days.get(date) ?? { meant_s: zeros(outputs), had_s: zeros(outputs), isWrong: false }
    days.set(date, day)
    return day
  }
  for (const run of runs) {
    const own = ownOutput(site, controller, sequenced, run.station.terminal)
    const meant = own ?? inStep.find((t) => t.from_s <= run.start_s && run.start_s < t.to_s)!.output
    const day = dayOf(run.start_s)
    day.meant_s[meant]! += run.end_s - run.start_s
    for (const turn of turns) {
      const both_s = Math.min(turn.to_s, run.end_s) - Math.max(turn.from_s, run.start_s)
      if (both_s <= 0) continue
      day.had_s[turn.output]! += both_s
      if (turn.output !== meant) day.isWrong = true
    }
  }
  const sum = (of: 'meant_s' | 'had_s') =>
    zeros(outputs).map((_, output) => [...days.values()].reduce((total, d) => total + d[of][output]!, 0))
  return {
    days: [...days].map(([date, day]) => ({ date, ...day })),
    meant_s: sum('meant_s'),
    had_s: sum('had_s'),
    upsets: upsets.map((upset) => ({
      ...upset,
      at: localText(clock, upset.from_s),
      shifts: steps(turns) % outputs !== steps(turnsWith(upsets.filter((u) => u !== upset))) % outputs,
    })),
  }
}

const zeros = (length: number): number[] => Array.from({ length }, () => 0)
const asInterval = ({ start_s, end_s }: { start_s: number; end_s: number }): Interval => ({
  from_s: start_s,
  to_s: end_s,
})
const steps = (turns: readonly Powered[]) => turns.filter((t) => !t.isHeld).length

/** The times at which it is brought into step, the beginning among them. */
function syncTimes(from_s: number, to_s: number, every_days: number | null): number[] {
  if (every_days === null) return [from_s]
  const count = Math.max(1, Math.ceil((to_s - from_s) / (every_days * DAY_s)))
  return Array.from({ length: count }, (_, i) => from_s + i * every_days * DAY_s)
}

/** Which output has power when, each stretch from one time of bringing into step to the next by itself. */
function turnsBetween(
  sequenced: Sequenced,
  on: readonly Interval[],
  upsets: readonly Upset[],
  syncs: readonly number[],
): Powered[] {
  const byHand = upsets.filter((u) => u.kind === 'by_hand')
  const outages = upsets.filter((u) => u.kind === 'outage')
  const all = [...on, ...byHand]
  const rules = { outputs: sequenced.outputs.length, off_ms: sequenced.off_ms }
  return syncs.flatMap((from_s, i) => {
    const until_s = syncs[i + 1] ?? Infinity
    const own = all.filter((o) => (i === 0 || o.from_s >= from_s) && o.from_s < until_s)
    return poweredTurns(own, outages, rules, lastOutput(sequenced))
  })
}

/** The output whose valve a screw is meant for; null of one that runs several. */
function ownOutput(
  site: Site,
  controller: ControllerId,
  { outputs }: Sequenced,
  terminal: Sequenced['fedBy'][number],
): number | null {
  const valves = stationAt(site, { controller, terminal })?.[1].valves ?? []
  const on = outputs.flatMap((coils, output) => (coils.some((c) => valves.includes(c)) ? [output] : []))
  return on.length === 1 ? on[0]! : null
}
