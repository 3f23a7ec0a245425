import { getOrThrow, lookUp, type ControllerId, type Site } from '../site'
import { localText, shownAt, type WallClock } from './clock'
import type { FindingCode, Judged, ScheduleFinding } from './finding'
import { voltsAt } from './electric'
import { momentsOf } from './moments'
import { runSeconds, type Run } from './runs'
import { sequencerFindings } from './sequencers'
import { stationKey, stationsInOrder, type StationOn } from './station'

/** Everything that is wrong with a schedule: its times, its caps, and what the wiring makes of it. */
export function findingsOf(judged: Judged): ScheduleFinding[] {
  return [
    ...timeFindings(judged),
    ...capFindings(judged),
    ...wiringFindings(judged),
    ...electricFindings(judged),
    ...sequencerFindings(judged),
  ]
}

/** What a station is called: its tag on the door, or its number. */
export function stationTag(site: Site, controller: ControllerId, { terminal, address }: StationOn): string {
  return address === null
    ? getOrThrow(getOrThrow(site.controllers, controller).terminals, terminal).tag
    : String(address)
}

function timeFindings({ site, controller, programs, ran, rules, clock }: Judged): ScheduleFinding[] {
  const found: ScheduleFinding[] = []
  const once = new Set<string>()
  const say = (code: FindingCode, key: string, params: ScheduleFinding['params']) => {
    if (once.has(`${code} ${key}`)) return
    once.add(`${code} ${key}`)
    found.push({ code, params })
  }
  const name = (program: number) => programs[program]!.name
  for (const { program, listed_s, begins_s } of ran.starts)
    if (begins_s !== null && begins_s > listed_s)
      say('start_waits', `${program} ${shownAt(clock, listed_s).second}`, {
        program: name(program),
        at: localText(clock, listed_s),
        minutes: Math.round((begins_s - listed_s) / 6) / 10,
      })
  if (rules.mode === 'overlap')
    ran.runs.forEach((run, i) => {
      const other = ran.runs.slice(0, i).find((r) => r.by !== run.by && r.end_s > run.start_s)
      if (other)
        say('overlap', [run.program, other.program].sort().join(' '), {
          program: name(run.program),
          other: name(other.program),
          at: localText(clock, run.start_s),
        })
    })
  const window = getOrThrow(site.controllers, controller).scheduling.window_s
  if (window)
    for (const run of ran.runs)
      if (!isWithin(window, clock, run))
        say('window_exceeded', String(run.program), {
          program: name(run.program),
          station: stationTag(site, controller, run.station),
          at: localText(clock, run.start_s),
        })
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
  return [
    ...(mostPrograms !== null && programs.length > mostPrograms
      ? [{ code: 'too_many_programs' as const, params: { count: programs.length, most: mostPrograms } }]
      : []),
    ...programs.flatMap(({ name, starts_s, seasonal_pct, runs }): ScheduleFinding[] => [
      ...(mostStarts !== null && new Set(starts_s).size > mostStarts
        ? [
            {
              code: 'too_many_starts' as const,
              params: { program: name, count: new Set(starts_s).size, most: mostStarts },
            },
          ]
        : []),
      ...runs.flatMap(({ station, minutes }): ScheduleFinding[] => {
        const seconds = runSeconds(minutes, seasonal_pct)
        if (mostMinutes === null || seconds <= mostMinutes * 60) return []
        return [
          {
            code: 'over_run_cap',
            params: {
              program: name,
              station: stationTag(site, controller, station),
              minutes: seconds / 60,
              most: mostMinutes,
              // Passes of equal length, each within the cap.
              passes: Math.ceil(seconds / (mostMinutes * 60)),
            },
          },
        ]
      }),
    ]),
  ]
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
      ? [{ code: 'never_runs', params: { station: stationTag(site, controller, s), name: s.name } }]
      : [],
  )
  return [
    ...empty.flatMap((station): ScheduleFinding[] => {
      const on = points(station)
      return [
        ...(on.some((p) => p.masterValve !== null)
          ? [{ code: 'master_with_nothing' as const, params: tag(station) }]
          : []),
        ...(on.some((p) => p.pumpRelay !== null) ? [{ code: 'pump_with_nothing' as const, params: tag(station) }] : []),
        ...(on.length === 0 ? [{ code: 'no_valve' as const, params: tag(station) }] : []),
      ]
    }),
    // Without a program nothing is meant to run yet.
    ...(programs.some((p) => p.runs.length > 0) ? neverRuns : []),
  ]
}

function electricFindings({ site, controller, ran, clock }: Judged): ScheduleFinding[] {
  const found = new Map<string, ScheduleFinding>()
  for (const moment of momentsOf(ran.runs, stationKey)) {
    const on = [...moment.others, moment.starting]
    const { load_VA, rating_VA, weak } = voltsAt(site, controller, on)
    const params = {
      stations: on.map((s) => stationTag(site, controller, s)).join(' + '),
      at: localText(clock, moment.at_s),
    }
    if (rating_VA !== null && load_VA > rating_VA && !found.has('over_VA'))
      found.set('over_VA', {
        code: 'over_VA',
        params: { ...params, load_VA: Math.round(load_VA * 10) / 10, rating_VA },
      })
    for (const { device, volt_V, minimum_V } of weak) {
      const { tag, name } = getOrThrow(site.devices, device)
      const key = `below_minimum_V ${device}`
      if (!found.has(key))
        found.set(key, {
          code: 'below_minimum_V',
          params: { ...params, device: tag ?? (name || device), volt_V: Math.round(volt_V * 100) / 100, minimum_V },
        })
    }
  }
  return [...found.values()]
}
