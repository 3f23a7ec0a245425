import { sequencedSite } from '../../tests/sequenced-site'
import { getOrThrow, type ControllerId, type PointOfConnectionId, type Site, type TerminalId } from '../site'
import { sequencersOf } from '../sequencer'
import { findingsOf, runsOf, toRuns, voltsAt, turnsOf, wallClock, type Program, type StationOn } from '.'

const A = 'A' as ControllerId
const clock = (() => {
  const utc = wallClock('UTC')
  if (!utc.ok) throw new Error('UTC')
  return utc.value
})()

const at = (terminal: string): StationOn => ({ terminal: terminal as TerminalId, address: null })
const program = (name: string, start: string, runs: readonly (readonly [string, number])[]): Program<StationOn> => {
  const [h, m] = start.split(':').map(Number) as [number, number]
  return {
    name,
    starts_s: [h * 3600 + m * 60],
    days: { kind: 'weekdays', on: [0, 1, 2, 3, 4, 5, 6] },
    seasonal_pct: 100,
    runs: runs.map(([station, minutes]) => ({ station: at(station), minutes })),
  }
}
function found(site: Site, programs: readonly Program<StationOn>[], mode?: 'overlap'): string[] {
  const { scheduling } = getOrThrow(site.controllers, A)
  const rules = { mode: mode ?? scheduling.startsRun, delay_s: scheduling.delay_s }
  const ran = runsOf(programs.map(toRuns), rules, clock, '2027-05-03', 2)
  return findingsOf({ site, controller: A, programs, ran, rules, clock }).map(({ code, params }) =>
    `${code} ${params.station ?? params.program ?? params.sequencer ?? params.device ?? ''}`.trim(),
  )
}
const whole = program('A', '06:00', [
  ['1', 10],
  ['4', 5],
  ['2', 5],
  ['5', 5],
])

test('a schedule in which nothing is wrong has no finding', () => {
  expect(found(sequencedSite(), [whole])).toEqual([])
})

test('two screws on one lead are one load: the transformer gives it once', () => {
  // Inrush of one coil at the worst mains is some 9 VA; twice that would be too much for the transformer.
  expect(found(sequencedSite({}, 15), [program('A', '06:00', [['4', 5]])])).not.toContain('over_VA')
  const { load_VA } = voltsAt(sequencedSite(), A, [at('4')])
  expect(load_VA).toBeCloseTo(voltsAt(sequencedSite(), A, [at('2')]).load_VA, 1)
})

test('waits, overlaps, caps and hours are found, once each', () => {
  const late = program('B', '06:10', [['2', 30]])
  expect(found(sequencedSite(), [whole, late])).toEqual(['start_waits B'])
  expect(found(sequencedSite({}, 100), [whole, late], 'overlap')).toEqual(['overlap B'])
  const capped = {
    mostMinutes: 8,
    mostStarts: 1,
    mostPrograms: 1,
    window_s: { opens: 22 * 3600, closes: 6 * 3600 + 900 },
  }
  const twice = { ...late, starts_s: [9 * 3600, 10 * 3600] }
  expect(found(sequencedSite(capped), [whole, twice])).toEqual([
    'window_exceeded 2',
    'window_exceeded 2',
    'too_many_programs',
    'over_run_cap 1',
    'too_many_starts B',
    'over_run_cap 2',
  ])
})

test('what the wiring makes of it: nothing to water, never run, too much for the transformer', () => {
  const spare = program('A', '06:00', [
    ['3', 5],
    ['6', 5],
    ['1', 10],
    ['4', 5],
    ['2', 5],
    ['5', 5],
  ])
  expect(found(sequencedSite(), [spare])).toEqual(['master_with_nothing 3', 'no_valve 6'])
  expect(
    found(sequencedSite(), [
      program('A', '06:00', [
        ['1', 10],
        ['4', 5],
        ['2', 5],
      ]),
    ]),
  ).toEqual(['never_runs 5', 'sequencer_order Q', 'sequencer_missed Q'])
  const both = [
    program('A', '06:00', [
      ['1', 30],
      ['4', 5],
    ]),
    program('B', '06:10', [
      ['2', 30],
      ['5', 5],
    ]),
  ]
  expect(found(sequencedSite({}, 10), both, 'overlap')).toContain('over_VA')
})

test('a sequencer steps when power returns after long enough: neighbours do not step it, and order decides the valve', () => {
  const site = sequencedSite()
  const [q] = sequencersOf(site, A)
  expect([q!.fedBy, q!.outputs]).toEqual([
    ['4', '5'],
    [['V4'], ['V5']],
  ])
  const next = program('A', '06:00', [
    ['1', 10],
    ['2', 5],
    ['4', 5],
    ['5', 5],
  ])
  expect(found(site, [next])).toEqual(['sequencer_adjacent Q', 'sequencer_order Q', 'sequencer_missed Q'])
  expect(found(sequencedSite({ delay_s: 1 }), [next])).toEqual([])
  const turned = program('A', '06:00', [
    ['5', 5],
    ['1', 10],
    ['4', 5],
    ['2', 5],
  ])
  expect(found(site, [turned])).toEqual(['sequencer_order Q'])
  const ran = runsOf([toRuns(whole)], { mode: 'stack', delay_s: 0 }, clock, '2027-05-03', 3)
  expect(turnsOf(q!, ran.runs).map((t) => t.output)).toEqual([0, 1, 0, 1, 0, 1])
  expect(turnsOf(q!, ran.runs, 1).map((t) => t.output)).toEqual([1, 0, 1, 0, 1, 0])
})

test('stations that share water want no more of it together than their point gives', () => {
  const watered = (most_Lmin: number | null, flow_Lmin: number | null): Site => {
    const site = sequencedSite({}, 100)
    const stations = Object.fromEntries(
      Object.entries(site.stations).map(([id, s]) => [
        id,
        { ...s, pointOfConnection: 'Supply' as PointOfConnectionId, withMaster: false, flow_Lmin },
      ]),
    )
    const [point] = Object.values(site.pointsOfConnection)
    return { ...site, stations, pointsOfConnection: { Supply: { ...point!, most_Lmin } } as Site['pointsOfConnection'] }
  }
  const both = [whole, program('B', '06:00', [['2', 4]])]
  const of = (site: Site) => found(site, both, 'overlap').filter((f) => f.startsWith('over_flow'))
  expect(of(watered(60, 30))).toEqual([])
  expect(of(watered(59, 30))).toEqual(['over_flow'])
  expect(found(watered(29, 30), [whole])).toEqual(['over_flow'])
  expect([of(watered(null, 30)), of(watered(59, null))]).toEqual([[], []])
})
