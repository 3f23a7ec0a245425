import { Draft, getOrThrow, type ControllerId, type Site, type TerminalId } from '../site'
import { findingsOf, runsOf, sequencersOf, toRuns, turnsOf, wallClock, type Program, type StationOn } from '.'

const A = 'A' as ControllerId
const clock = (() => {
  const utc = wallClock('UTC')
  if (!utc.ok) throw new Error('UTC')
  return utc.value
})()

/** Three stations on leads of their own, one of them a spare, and a sequencer of two outputs on screws 4 and 5. */
function drafted(scheduling: Record<string, unknown> = {}, rating_VA = 40): Site {
  const draft = new Draft('Schedule')
    .coilKind('coil', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .place('A', 'cabinet')
    .place('B1')
    .controller('A', 'A', 6, { transformer: { rating_VA }, scheduling })
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B1', 60],
      ],
      cores: ['white', 'red', 'blue', 'green'],
    })
    .valve('V1', 'B1', 'coil')
    .valve('V2', 'B1', 'coil')
    .valve('V4', 'B1', 'coil')
    .valve('V5', 'B1', 'coil')
    .valve('M', 'B1', 'coil')
    .device('Q', 'sequencer', 'B1', null, { outputs: 2 })
    .pointOfConnection('Supply', { name: 'Supply', masterValve: 'M', terminal: { controller: 'A', terminal: 'MV' } })
    .join('A', ['A:C', 'K.white>'])
    .join('A', ['A:1', 'K.red>'])
    .join('A', ['A:2', 'K.blue>'])
    .join('A', ['A:4', 'A:5', 'K.green>'])
    .join('B1', ['K.red<', 'V1.a'])
    .join('B1', ['K.blue<', 'V2.a'])
    .join('B1', ['K.green<', 'Q.in'])
    .join('B1', ['Q.out_1', 'V4.a'])
    .join('B1', ['Q.out_2', 'V5.a'])
    .join('B1', ['K.white<', 'V1.b', 'V2.b', 'V4.b', 'V5.b', 'Q.common', 'M.b'])
    .station('A:1', 'Bed', ['V1'], { pointOfConnection: 'Supply' })
    .station('A:2', 'Lawn', ['V2'])
    .station('A:3', 'Spare', [], { pointOfConnection: 'Supply' })
    .station('A:4', 'Left', ['V4'])
    .station('A:5', 'Right', ['V5'])
  return draft.site()
}
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
  expect(found(drafted(), [whole])).toEqual([])
})

test('waits, overlaps, caps and hours are found, once each', () => {
  const late = program('B', '06:10', [['2', 30]])
  expect(found(drafted(), [whole, late])).toEqual(['start_waits B'])
  expect(found(drafted({}, 100), [whole, late], 'overlap')).toEqual(['overlap B'])
  const capped = {
    mostMinutes: 8,
    mostStarts: 1,
    mostPrograms: 1,
    window_s: { opens: 22 * 3600, closes: 6 * 3600 + 900 },
  }
  const twice = { ...late, starts_s: [9 * 3600, 10 * 3600] }
  expect(found(drafted(capped), [whole, twice])).toEqual([
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
  expect(found(drafted(), [spare])).toEqual(['master_with_nothing 3', 'no_valve 6'])
  expect(
    found(drafted(), [
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
  expect(found(drafted({}, 12), both, 'overlap')).toContain('over_VA')
})

test('a sequencer steps when power returns after long enough: neighbours do not step it, and order decides the valve', () => {
  const site = drafted()
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
  expect(found(drafted({ delay_s: 1 }), [next])).toEqual([])
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
