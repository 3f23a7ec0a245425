import { readProperty, writeProperty } from '../core/formats'
import { noFacts } from '../core/record'
import { programsOf, review, runsOf, toRuns, wallClock } from '../core/schedule'
import type { ControllerId } from '../core/site'
import { drawnPrograms } from '../tests/drawn-programs'
import { asPlain, secondBySecond } from '../tests/second-by-second'
import { sixtyStations } from '../tests/sixty-stations'

// Schedules: drawn sets of programs over changes of the clock against a clock that ticks second by second; and a year
// of sixty stations, run and judged, against reading their file.

const argument = (name: string, usual: number) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases] = [argument('seed', 1), argument('cases', 1000)]
const counts = { runs: 0, differing: 0, stacked: 0 }
for (let n = 0; n < cases; n++) {
  const { programs, zone, from, days, mode, delay_s } = drawnPrograms(seed * 10_000 + n)
  const clock = wallClock(zone)
  if (!clock.ok) throw new Error(zone)
  const ours = runsOf(programs.map(toRuns), { mode, delay_s }, clock.value, from, days).runs
  const theirs = secondBySecond(programs.map(asPlain), { zone, mode, delay: delay_s, from, days })
  const sorted = (list: readonly string[]) => [...list].sort().join()
  const same =
    sorted(ours.map((r) => `${r.start_s} ${r.end_s} ${r.program} ${r.station}`)) ===
    sorted(theirs.map((r) => `${r.start} ${r.end} ${r.program} ${r.station}`))
  counts.runs += ours.length
  counts.stacked += Number(mode === 'stack')
  counts.differing += Number(!same)
}

const YEAR_days = 365
const PASSES = 5
const sixty = sixtyStations()
const file = writeProperty({ id: '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b11', revision: 1, site: sixty, facts: noFacts() })
const took = (what: () => unknown) => {
  const from = performance.now()
  what()
  return performance.now() - from
}
const middle = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!
const times = Array.from({ length: PASSES }, () => ({
  reading: took(() => {
    if (!readProperty(file).ok) throw new Error('file')
  }),
  year: took(() => {
    const controller = 'A' as ControllerId
    const asked = { from: '2027-01-01', days: YEAR_days }
    if (!review(sixty, controller, programsOf(sixty, controller), asked).ok) throw new Error('year')
  }),
}))
const yearOverReading = middle(times.map((t) => t.year)) / middle(times.map((t) => t.reading))
const result = { seed, cases, ...counts, yearOverReading: Math.round(yearOverReading * 100) / 100 }
console.log(
  process.argv.includes('--json')
    ? JSON.stringify(result)
    : `${cases} sets of programs, ${counts.stacked} stacked, ${counts.runs} runs: ${counts.differing} sets differ; ` +
        `a year of sixty stations takes ${result.yearOverReading} times the reading of their file`,
)
