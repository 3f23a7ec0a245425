import { sequencersOf } from '../sequencer'
import { entries, getOrThrow, setField, type Command, type ControllerId, type Site, type TerminalId } from '../site'
import { inOutputOrder, keptApart } from './apart'
import { freeName, replacePrograms } from './edit'
import type { ScheduleFinding } from './finding'
import { asMany, inPasses, layOut, type Wanted } from './lay-out'
import { rulesOf, type Reviewed } from './on-record'
import { startsOf, type Program } from './program'
import { stationKey, type StationOn } from './station'

/** Programs as they would be, with the controller’s delay between stations where that changes too. */
export interface Changed {
  readonly programs: readonly Program<StationOn>[]
  readonly delay_s?: number
}
/** What a mend is made from: programs of a controller, and what running them showed. */
export interface Mending {
  readonly site: Site
  readonly controller: ControllerId
  readonly programs: readonly Program<StationOn>[]
  readonly reviewed: Reviewed
}

const DAY_s = 86_400
type Runs = Program<StationOn>['runs']
const eachRuns = (programs: Mending['programs'], make: (runs: Runs, program: number) => Runs): Changed => ({
  programs: programs.map((p, i) => ({ ...p, runs: make(p.runs, i) })),
})
const same = (a: StationOn, b: StationOn) => stationKey(a) === stationKey(b)

/**
 * The change that mends a finding of a schedule.
 * @returns null where no change of programs does: the wiring is wrong then, or there is more than fits
 */
export function mendOf(mending: Mending, { code, about }: ScheduleFinding): Changed | null {
  const { site, controller, programs } = mending
  const { scheduling } = getOrThrow(site.controllers, controller)
  const { delay_s } = rulesOf(site, controller)
  switch (code) {
    case 'start_waits':
      return about.program === undefined ? null : atItsTurn(mending, about.program)
    case 'overlap':
      return oneByOne(programs, asMany(programs), delay_s)
    case 'over_VA':
    case 'below_minimum_V':
    case 'over_flow':
      return about.beside !== 0 && mending.reviewed.rules.mode === 'overlap'
        ? oneByOne(programs, asMany(programs), delay_s)
        : null
    case 'window_exceeded':
      return scheduling.window_s && fitted(asMany(programs), scheduling.window_s, delay_s)
    case 'over_run_cap': {
      const wanted = asMany(programs)
      if (about.program !== undefined && scheduling.mostMinutes !== null)
        wanted[about.program] = inPasses(programs[about.program]!, scheduling.mostMinutes)
      return oneByOne(programs, wanted, delay_s)
    }
    case 'too_many_starts':
      return about.program === undefined || scheduling.mostStarts === null
        ? null
        : splitStarts(programs, about.program, scheduling.mostStarts)
    case 'too_many_programs':
      return merged(programs)
    case 'master_with_nothing':
    case 'pump_with_nothing':
    case 'no_valve':
      return eachRuns(programs, (runs) => runs.filter((r) => !same(r.station, about.station!)))
    case 'never_runs':
      return takenIn(programs, about.station!)
    case 'sequencer_adjacent':
      return stoodApart(mending)
    case 'sequencer_order':
      return inOrder(mending, about)
    case 'sequencer_missed':
      return furtherPasses(mending, about)
  }
}

/** The commands of a change. */
export const changeCommands = (
  site: Site,
  controller: ControllerId,
  { programs, delay_s }: Changed,
  id: () => string,
): Command[] => [
  ...replacePrograms(site, controller, programs, id),
  ...(delay_s === undefined
    ? []
    : [
        setField('controllers', controller, 'scheduling', {
          ...getOrThrow(site.controllers, controller).scheduling,
          delay_s,
        }),
      ]),
]

/** A program’s starts put where their turn came at the latest; null where that is past midnight. */
function atItsTurn({ programs, reviewed }: Mending, program: number): Changed | null {
  const waits = new Map<number, number>()
  for (const start of reviewed.ran.starts) {
    if (start.program !== program || start.begins_s === null) continue
    waits.set(start.second, Math.max(waits.get(start.second) ?? 0, start.begins_s - start.listed_s))
  }
  const later = (s: number) => Math.ceil((s + (waits.get(s) ?? 0)) / 60) * 60
  const starts_s = programs[program]!.starts_s.map((s) => s && later(s))
  if (starts_s.some((s) => s !== null && s >= DAY_s)) return null
  return { programs: programs.map((p, i) => (i === program ? { ...p, starts_s } : p)) }
}

/** Starts one after the other from the earliest on. */
function oneByOne(programs: Mending['programs'], wanted: readonly Wanted[], delay_s: number): Changed {
  return layOut(wanted, Math.min(DAY_s - 60, ...programs.flatMap(startsOf)), delay_s)
}

/** Starts one after the other within the hours in which it may water; null where they are too long for that. */
export function fitted(
  wanted: readonly Wanted[],
  { opens, closes }: { opens: number; closes: number },
  delay_s: number,
): Changed | null {
  const laid = layOut(wanted, opens % DAY_s, delay_s)
  return laid.ends_s <= (closes > opens ? closes : closes + DAY_s) ? laid : null
}

/** The starts that are too many, in further programs of the same runs. */
function splitStarts(programs: Mending['programs'], program: number, most: number): Changed {
  const whole = programs[program]!
  const starts = startsOf(whole)
  const next = [...programs]
  next[program] = { ...whole, starts_s: starts.slice(0, most) }
  for (let i = most; i < starts.length; i += most)
    next.push({ ...whole, name: freeName(next.map((p) => p.name)), starts_s: starts.slice(i, i + most) })
  return { programs: next }
}

/**
 * Two programs of the same days and per cent, of which the second has stations of its own, as one; null without such.
 */
function merged(programs: Mending['programs']): Changed | null {
  const alike = (a: Program<StationOn>, b: Program<StationOn>) =>
    JSON.stringify([a.days, a.seasonal_pct]) === JSON.stringify([b.days, b.seasonal_pct]) &&
    startsOf(a).length === startsOf(b).length &&
    a.runs.every((r) => b.runs.every((s) => !same(r.station, s.station)))
  for (const [i, into] of programs.entries())
    for (const [j, from] of programs.entries())
      if (j > i && alike(into, from))
        return {
          programs: programs.flatMap((p, k) =>
            k === j ? [] : [k === i ? { ...p, runs: [...p.runs, ...from.runs] } : p],
          ),
        }
  return null
}

/** A station at the end of the program with the most stations, with the middle of that program’s minutes. */
function takenIn(programs: Mending['programs'], station: StationOn): Changed | null {
  const largest = Math.max(0, ...programs.map((p) => p.runs.length))
  const into = programs.findIndex((p) => p.runs.length === largest)
  if (largest === 0) return null
  const minutes = programs[into]!.runs.map((r) => r.minutes).sort((a, b) => a - b)
  const own = { station: { terminal: station.terminal, address: station.address }, minutes: minutes[largest >> 1]! }
  return eachRuns(programs, (runs, i) => (i === into ? [...runs, own] : runs))
}

/** Another station between any two of a sequencer; where there are too few, a delay that is longer than it needs. */
function stoodApart({ site, controller, programs }: Mending): Changed {
  const sequencers = sequencersOf(site, controller)
  const apart = programs.map((p) => keptApart(p.runs, sequencers))
  if (apart.every((runs) => runs !== null)) return eachRuns(programs, (_, i) => apart[i]!)
  const longest_ms = Math.max(...sequencers.map((q) => q.off_ms))
  return { programs, delay_s: Math.max(rulesOf(site, controller).delay_s, Math.ceil(longest_ms / 1000)) }
}

/** Jumpered screws in the order of the outputs of their sequencer. */
function inOrder({ site, controller, programs }: Mending, { sequencer }: ScheduleFinding['about']): Changed | null {
  const sequenced = sequencersOf(site, controller).find((q) => q.device === sequencer)
  if (!sequenced) return null
  const outputOf = (terminal: TerminalId): number | null => {
    const meant = entries(site.stations).find(
      ([, s]) => s.controller === controller && s.terminal === terminal && s.address === null,
    )?.[1].valves
    const at = sequenced.outputs.findIndex((coils) => meant?.some((v) => coils.includes(v)))
    return at < 0 ? null : at
  }
  return eachRuns(programs, (runs) => inOutputOrder(runs, sequenced, outputOf))
}

/**
 * As many turns as a sequencer has outputs with a valve. One screw that feeds it alone gets a program of its own,
 * behind the last, with the starts that are missing; of jumpered screws those that run in no program come in.
 */
function furtherPasses(
  { site, controller, programs, reviewed }: Mending,
  { sequencer }: ScheduleFinding['about'],
): Changed | null {
  const sequenced = sequencersOf(site, controller).find((q) => q.device === sequencer)
  if (!sequenced) return null
  const ofIt = (r: Runs[number]) => r.station.address === null && sequenced.fedBy.includes(r.station.terminal)
  const first = programs.find((p) => p.runs.some(ofIt))
  if (!first) return null
  const never = sequenced.fedBy.filter((t) => programs.every((p) => p.runs.every((r) => r.station.terminal !== t)))
  if (never.length > 0 && sequenced.fedBy.length > 1)
    return never.reduce<Changed | null>(
      (changed, terminal) => changed && takenIn(changed.programs, { terminal, address: null }),
      { programs },
    )
  const turns = programs.reduce((sum, p) => sum + p.runs.filter(ofIt).length * startsOf(p).length, 0)
  const missing = sequenced.outputs.filter((coils) => coils.length > 0).length - turns
  if (missing <= 0) return null
  const { delay_s } = reviewed.rules
  const laid = layOut(asMany(programs), Math.min(DAY_s, ...programs.flatMap(startsOf)), delay_s)
  const own = {
    ...first,
    name: freeName(programs.map((p) => p.name)),
    runs: [first.runs.find(ofIt)!],
  }
  // A minute between its starts is time enough without power.
  const gap_s = Math.max(60, Math.ceil(sequenced.off_ms / 1000))
  const passes = layOut([{ program: own, passes: missing }], laid.ends_s + gap_s, Math.max(delay_s, gap_s))
  return { programs: [...programs, ...passes.programs] }
}
