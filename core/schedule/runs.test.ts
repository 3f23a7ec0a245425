import { drawnPrograms } from '../../tests/drawn-programs'
import { asPlain, secondBySecond } from '../../tests/second-by-second'
import { daysText, readDays, readPrograms, readStarts, runsOf, runSeconds, startsText, toRuns, wallClock } from '.'

test('runs are to the second those of a clock that ticks, stacked and overlapping, over changes of the clock', () => {
  let runs = 0
  for (let seed = 1; seed <= 40; seed++) {
    const { programs, zone, from, days, mode, delay_s } = drawnPrograms(seed)
    const clock = wallClock(zone)
    if (!clock.ok) throw new Error(zone)
    const ours = runsOf(programs.map(toRuns), { mode, delay_s }, clock.value, from, days).runs
    const theirs = secondBySecond(programs.map(asPlain), { zone, mode, delay: delay_s, from, days })
    const asText = (list: readonly string[]) => [...list].sort()
    expect([seed, asText(ours.map((r) => `${r.start_s} ${r.end_s} ${r.program} ${r.station}`))]).toEqual([
      seed,
      asText(theirs.map((r) => `${r.start} ${r.end} ${r.program} ${r.station}`)),
    ])
    runs += ours.length
  }
  expect(runs).toBeGreaterThan(150)
})

test('seconds go to the nearest, halves up, whatever decimals make of them', () => {
  expect(runSeconds(10, 100)).toBe(600)
  expect(runSeconds(0.025, 100)).toBe(2)
  expect(runSeconds(1.675, 100)).toBe(101)
  expect(runSeconds(8.35, 30)).toBe(150)
  expect(runSeconds(0.3, 50)).toBe(9)
  expect(runSeconds(12, 0)).toBe(0)
})

test('starts and days are read as they are typed, written as they are read, and refused where they are neither', () => {
  for (const text of ['Mon Wed', 'odd', 'even', 'every 3 from 2027-05-01', ''])
    expect(daysText(readDays(text)!)).toBe(text)
  expect(readDays('monday, sunday')).toEqual({ kind: 'weekdays', on: [0, 6] })
  for (const text of ['every 0 from 2027-05-01', 'every 2 from 2027-02-30', 'Mon Foo', 'sometimes'])
    expect(readDays(text)).toBeUndefined()
  expect(readStarts('06:00 18.30, 7:05:30')).toEqual([21_600, 66_600, 25_530])
  expect(startsText([21_600, 66_600, 25_530])).toBe('06:00 18:30 07:05:30')
  for (const text of ['24:00', '6', '06:60']) expect(readStarts(text)).toBeNull()
  const line = (n: number, cells: Partial<Record<string, string>>) => ({
    line: n,
    cells: { program: '', starts: '', days: '', seasonal_pct: '', station: '', minutes: '', ...cells } as never,
  })
  const { programs, wrong } = readPrograms([
    line(2, { program: 'A', starts: '06:00', days: 'odd', seasonal_pct: '80', station: '3', minutes: '10' }),
    line(3, { program: 'A', station: '1', minutes: '2,5' }),
    line(4, { program: 'B', starts: 'noon', days: 'often', seasonal_pct: 'x', station: '1', minutes: '-4' }),
    line(5, { station: '1', minutes: '4' }),
  ])
  expect(programs[0]).toMatchObject({
    seasonal_pct: 80,
    runs: [
      { station: '3', minutes: 10 },
      { station: '1', minutes: 2.5 },
    ],
  })
  expect(wrong.map((w) => `${w.path.join(' ')} ${w.code}`)).toEqual([
    'line 4 starts no_start_time',
    'line 4 days no_such_days',
    'line 4 seasonal_pct not_within',
    'line 4 minutes not_within',
    'line 5 program no_program_name',
  ])
})
