import { deviceName, getOrThrow, lookUp } from '../site'
import { localText, shownAt, type WallClock } from './clock'
import type { FindingCode, Judged, ScheduleFinding } from './finding'
import { voltsAsker } from './electric'
import { flowFindings } from './flow'
import { momentsOf } from './moments'
import { highestPerCent, startsOf } from './program'
import { runSeconds, type Run } from './runs'
import { sequencerFindings } from './sequencers'
import { stationKey, stationsInOrder, type StationOn } from './station'
import { stationTag } from './station-tag'

/** Everything that is wrong with a schedule: its times, its caps, and what the wiring makes of it. */
export function findingsOf(judged: Judged): ScheduleFinding[] {
  return [
    ...timeFindings(judged),
    ...capFindings(judged),
    ...wiringFindings(judged),
    ...electricFindings(judged),
    ...flowFindings(judged),
    ...sequencerFindings(judged),
  ]
}

function timeFindings({ site, controller, programs, ran, rules, clock }: Judged): ScheduleFinding[] {
  const found: ScheduleFinding[] = []
  const once = new Set<string>()
  const name = (program: number) => programs[program]!.name
  /** A year has thousands of runs alike: what is said of one is put together for the first alone. */
  const say = (code: FindingCode, program: number, key: string | number, params: () => ScheduleFinding['params']) => {
    if (once.has(`${code} ${key}`)) return
    once.add(`${code} ${key}`)
    found.push({ code, params: { program: name(program), ...params() }, about: { program } })
  }
  for (const { program, second, listed_s, begins_s } of ran.starts)
    if (begins_s !== null && begins_s > listed_s)
      say('start_waits', program, `${program} ${second}`, () => ({
        at: localText(clock, listed_s),
        minutes: Math.round((begins_s - listed_s) / 6) / 10,
      }))
  if (rules.mode === 'overlap') {
    let open: Run<StationOn>[] = []
    for (const run of ran.runs) {
      open = open.filter((r) => r.end_s > run.start_s)
      const other = open.find((r) => r.by !== run.by)
      open.push(run)
      if (other)
        say('overlap', run.program, [run.program, other.program].sort().join(' '), () => ({
          other: name(other.program),
          at: localText(clock, run.start_s),
        }))
    }
  }
  const window = getOrThrow(site.controllers, controller).scheduling.window_s
  if (window)
    for (const run of ran.runs)
      if (!isWithin(window, clock, run))
        say('window_exceeded', run.program, run.program, () => ({
          station: stationTag(site, controller, run.station),
          at: localText(clock, run.start_s),
        }))
  return found
}

/** Whether a run lies within the hours in which it may water, over midnight where they do. */
function isWithin({ opens, closes }: { opens: number; closes: number }, clock: WallClock, run: Run<unknown>): boolean {
  const { second } = shownAt(clock, run.start_s)
  const length_s = run.end_s - run.start_s
  const whole = closes > opens ? closes - opens : closes - opens + 86_400
  const since = (second - opens + 86_400) % 86_400
  return since + length_s <= whole
}

function capFindings({ site, controller, programs }: Judged): ScheduleFinding[] {
  const { mostMinutes, mostStarts, mostPrograms } = getOrThrow(site.controllers, controller).scheduling
  const found: ScheduleFinding[] = []
  if (mostPrograms !== null && programs.length > mostPrograms)
    found.push({ code: 'too_many_programs', params: { count: programs.length, most: mostPrograms }, about: {} })
  programs.forEach((program, index) => {
    const { name, seasonal_pct, runs } = program
    const count = startsOf(program).length
    if (mostStarts !== null && count > mostStarts)
      found.push({
        code: 'too_many_starts',
        params: { program: name, count, most: mostStarts },
        about: { program: index },
      })
    for (const { station, minutes } of runs) {
      const seconds = runSeconds(minutes, highestPerCent(seasonal_pct))
      if (mostMinutes === null || seconds <= mostMinutes * 60) continue
      found.push({
        code: 'over_run_cap',
        params: {
          program: name,
          station: stationTag(site, controller, station),
          minutes: seconds / 60,
          most: mostMinutes,
          // Passes of equal length, each within the cap.
          passes: Math.ceil(seconds / (mostMinutes * 60)),
        },
        about: { program: index, station },
      })
    }
  })
  return found
}

function wiringFindings({ site, controller, programs, ran }: Judged): ScheduleFinding[] {
  const ranKeys = new Map(ran.runs.map((r) => [stationKey(r.station), r.station]))
  const stations = stationsInOrder(site, controller)
  const at = (of: StationOn) => stations.filter(([, s]) => stationKey(s) === stationKey(of))
  const empty = [...ranKeys.values()].filter((station) => at(station).every(([, s]) => s.valves.length === 0))
  const points = (of: StationOn) =>
    at(of).flatMap(([, s]) =>
      s.withMaster && s.pointOfConnection !== null ? (lookUp(site.pointsOfConnection, s.pointOfConnection) ?? []) : [],
    )
  const tag = (station: StationOn) => ({ station: stationTag(site, controller, station) })
  const neverRuns = stations.flatMap(([, s]): ScheduleFinding[] =>
    s.valves.length > 0 && !ranKeys.has(stationKey(s))
      ? [
          {
            code: 'never_runs',
            params: { station: stationTag(site, controller, s), name: s.name },
            about: { station: s },
          },
        ]
      : [],
  )
  return [
    ...empty.flatMap((station): ScheduleFinding[] => {
      const on = points(station)
      const codes: FindingCode[] = [
        ...(on.some((p) => p.masterValve !== null) ? (['master_with_nothing'] as const) : []),
        ...(on.some((p) => p.pumpRelay !== null) ? (['pump_with_nothing'] as const) : []),
      ]
      return (codes.length > 0 ? codes : (['no_valve'] as const)).map((code) => ({
        code,
        params: tag(station),
        about: { station },
      }))
    }),
    // Without a program nothing is meant to run yet.
    ...(programs.some((p) => p.runs.length > 0) ? neverRuns : []),
  ]
}

function electricFindings({ site, controller, ran, clock }: Judged): ScheduleFinding[] {
  const found = new Map<string, ScheduleFinding>()
  const voltsOf = voltsAsker(site, controller)
  for (const moment of momentsOf(ran.runs, stationKey)) {
    const on = [...moment.others, moment.starting]
    const { load_VA, rating_VA, at } = voltsOf(on)
    const params = {
      stations: on.map((s) => stationTag(site, controller, s)).join(' + '),
      at: localText(clock, moment.at_s),
    }
    if (rating_VA !== null && load_VA > rating_VA && !found.has('over_VA'))
      found.set('over_VA', {
        code: 'over_VA',
        params: { ...params, load_VA: Math.round(load_VA * 10) / 10, rating_VA },
        about: { station: moment.starting, beside: moment.others.length },
      })
    for (const { device, volt_V, minimum_V, enough } of at) {
      if (enough) continue
      const key = `below_minimum_V ${device}`
      if (!found.has(key))
        found.set(key, {
          code: 'below_minimum_V',
          params: { ...params, device: deviceName(site, device), volt_V: Math.round(volt_V * 100) / 100, minimum_V },
          about: { station: moment.starting, beside: moment.others.length },
        })
    }
  }
  return [...found.values()]
}
