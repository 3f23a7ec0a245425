import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { buildSync } from 'esbuild'
import { FAMILIES, oddsBasis, USUAL_ODDS } from '../core/hunt'
import { calibration } from './hunt/calibration'
import { caseOf, METER, sweepTests, type Case } from './hunt/draw'
import { KINDS } from './hunt/draw-fault'
import { expected, gameOf, greedy, optimum, ours as oursIn } from './hunt/optimum'
import { Engine } from './hunt/process'
import { rescore } from './hunt/rescore'
import { byProcedure, hunted, type Hunted, type Outcome } from './hunt/worked'

// Diagnosis: made-up properties with faults in them, answered by the stand-in's plain solver; the engine in processes
// of its own is told the record and the readings only. Accuracy, calibration and minutes against the procedure of
// docs/outward.md.

const flag = (name: string, usual: number) => {
  const at = process.argv.indexOf(name)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases, processes, small] = [
  flag('--seed', 1),
  flag('--cases', 400),
  flag('--processes', 2),
  flag('--small', 200),
]
const text = (name: string) => process.argv[process.argv.indexOf(name) + 1]
/** `--faults 3`: three to five faults a case. `--world off`: a world, odds and lengths unlike the engine's. */
const many = flag('--faults', 1) >= 3
const off = process.argv.includes('--world') && text('--world') === 'off'
const [spread, oddsWrong] = [flag('--spread', off ? 1.5 : 1), flag('--odds-wrong', off ? 3 : 1)]
/** Odds that are off by a factor, one family up and the next down. */
const odds = oddsBasis.parse({
  families: Object.fromEntries(
    FAMILIES.map((f, i) => [f, USUAL_ODDS.families[f] * (i % 2 === 0 ? oddsWrong : 1 / oddsWrong)]),
  ),
})
const verbose = process.argv.includes('--verbose')

/** The engine as one bundled file: as fast as it runs in a browser. */
const engineFile = join(mkdtempSync(join(tmpdir(), 'hunt-')), 'engine.mjs')
buildSync({
  entryPoints: [fileURLToPath(new URL('./hunt/engine.ts', import.meta.url))],
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile: engineFile,
  logLevel: 'error',
})

/** Whether the rule of thumb, 20–60 Ω, passes every thread of a case. */
function rulePasses(c: Case): boolean {
  const field = c.field(c.faults)
  return sweepTests(c.site).every((test) => {
    const v = field.answer(test, METER)
    return v.kind === 'ohm' && v.ohm >= 20 && v.ohm <= 60
  })
}

const sum = (list: readonly number[]) => list.reduce((s, v) => s + v, 0)
const right = (c: Case, o: Pick<Outcome, 'ended' | 'found' | 'wrong'>) =>
  o.wrong.length === 0 && o.found.length === c.truth.length && (o.ended === 'nothing' || c.truth.length > 0)
const engines = Array.from({ length: processes }, () => new Engine(engineFile))
const all: { c: Case; ours: Hunted; theirs: Outcome }[] = []
const start = performance.now()
let next = 0
await Promise.all(
  engines.map(async (engine) => {
    while (next < cases) {
      const c = caseOf(seed * 100_003 + next++, { spread, many, off })
      const ours = await hunted(c, engine, odds)
      all.push({ c, ours, theirs: byProcedure(c) })
      if (process.argv.includes('--progress'))
        console.error(
          `${all.length} ${c.seed} ${c.truth.length} ${ours.readings} readings, ${sum(ours.next_s).toFixed(1)} s,`,
          `most ${Math.max(...ours.next_s).toFixed(1)}, ${ours.minutes.toFixed(0)} min,`,
          `theirs ${all.at(-1)!.theirs.minutes.toFixed(0)}`,
        )
      if (verbose && !right(c, ours))
        console.error(
          `case ${c.seed}: truth ${c.truth.join(', ')} (${c.faults.map((f) => JSON.stringify(f)).join(' ')})`,
          `ours ${ours.found.join()} wrong ${ours.wrong.join()} ${ours.ended} ${ours.minutes.toFixed(0)} min`,
          ...ours.log.slice(-9).map((line) => `\n   ${line}`),
        )
    }
  }),
)
const cases_s = (performance.now() - start) / 1000
/** A property beyond those of the cases: how many faults and cells it has, and the seconds to each next test. */
const large = await hunted(caseOf(seed, { stations: 56, spread, many, off }), engines[0]!, odds, { tried: false })
const largest = {
  ...large.size,
  first_s: large.first_s,
  next_s: Math.max(...large.next_s),
  next_median_s: [...large.next_s].sort((a, b) => a - b)[large.next_s.length >> 1],
}
engines.forEach((e) => e.end())
rmSync(dirname(engineFile), { recursive: true })

/**
 * Small cases of one fault, solved outright: expected minutes of the best order of tests, of ours, of one step ahead,
 * and what the procedure took.
 */
function smallCases(wanted: number) {
  const [MOST_STATES, sums] = [20_000, { cases: 0, passedOver: 0, optimum: 0, ours: 0, greedy: 0, procedure: 0 }]
  for (let n = 0; sums.cases < wanted && n < 4 * wanted; n++) {
    const c = caseOf(seed * 700_001 + n, { stations: 3 + (n % 4), spread })
    const game = c.truth.length === 1 ? gameOf(c) : null
    if (!game) continue
    const best = optimum(game, MOST_STATES)
    if (best === null) {
      sums.passedOver++
      continue
    }
    sums.cases++
    sums.optimum += best
    sums.ours += expected(game, oursIn)
    sums.greedy += expected(game, greedy)
    sums.procedure += byProcedure(c).minutes
  }
  const closed = (minutes: number) => (sums.procedure - minutes) / (sums.procedure - sums.optimum)
  return {
    smallCases: sums.cases,
    tooLarge: sums.passedOver,
    gapClosed: closed(sums.ours),
    gapClosedByGreedy: closed(sums.greedy),
    small_min: {
      optimum: sums.optimum / sums.cases,
      ours: sums.ours / sums.cases,
      greedy: sums.greedy / sums.cases,
      procedure: sums.procedure / sums.cases,
    },
  }
}
const middle = <T>(list: readonly T[], of: (x: T) => number): T =>
  [...list].sort((a, b) => of(a) - of(b))[list.length >> 1]!
const rescored = middle(
  Array.from({ length: 5 }, (_, k) => rescore(seed + k)),
  (r) => r.ratio,
)
if (rescored.worst > 1e-8) throw new Error(`rescored readings differ by ${rescored.worst}`)

const share = (list: readonly { c: Case; ours: Hunted }[], of: (x: { c: Case; ours: Hunted }) => boolean) =>
  list.length === 0 ? null : list.filter(of).length / list.length
const [singles, doubles, nones] = [1, 2, 0].map((n) => all.filter(({ c }) => c.truth.length === n)) as [
  typeof all,
  typeof all,
  typeof all,
]
const undecided = all.filter(({ ours }) => ours.moved !== null)
const manies = all.filter(({ c }) => c.truth.length > 2)
const faults = all.flatMap(({ c, ours }) => c.truth.map((key) => ours.found.includes(key)))
const names = all.reduce((s, { ours }) => s + ours.found.length + ours.wrong.length, 0)
const times = all.flatMap(({ ours }) => ours.next_s).sort((a, b) => a - b)
const cal = calibration(all.flatMap(({ ours }) => ours.believed))
const passed = singles.filter(({ c }) => rulePasses(c))
const result = {
  cases,
  drawn: { single: singles.length, double: doubles.length, none: nones.length, many: manies.length },
  ruleMissed: share(passed, ({ c, ours }) => right(c, ours)),
  rulePassed: passed.length,
  single: share(singles, ({ c, ours }) => right(c, ours)),
  double: share(doubles, ({ c, ours }) => right(c, ours)),
  none: share(nones, ({ c, ours }) => right(c, ours)),
  many: share(manies, ({ c, ours }) => right(c, ours) && ours.ended === 'nothing'),
  found: faults.length === 0 ? null : faults.filter(Boolean).length / faults.length,
  confidentWrong: names === 0 ? 0 : sum(all.map(({ ours }) => ours.wrong.length)) / names,
  /** Of hunts that ended undecided: those in which no test that was left would have moved a belief by 1 %. */
  undecided: undecided.length,
  undecidedTrue: share(undecided, ({ ours }) => ours.moved! <= 0.01),
  /** Cases to look at: what was sound and named, or what was not found. */
  failed: all.flatMap(({ c, ours: { ended, found, wrong } }) =>
    right(c, { ended, found, wrong }) ? [] : [{ seed: c.seed, ended, wrong, missed: c.truth.length - found.length }],
  ),
  named: share(singles, ({ ours }) => ours.found.length + ours.wrong.length > 0),
  minutesRatio: sum(all.map(({ ours }) => ours.minutes)) / sum(all.map(({ theirs }) => theirs.minutes)),
  procedure: all.filter(({ c, theirs }) => right(c, theirs)).length / all.length,
  minutes: sum(all.map(({ ours }) => ours.minutes)) / all.length,
  procedureMinutes: sum(all.map(({ theirs }) => theirs.minutes)) / all.length,
  readings: sum(all.map(({ ours }) => ours.readings)) / all.length,
  calibrated: cal.every((d) => d.within),
  calibratedByHunt: cal.every((d) => d.withinByHunt),
  deciles: cal,
  first_s: middle(all, ({ ours }) => ours.first_s).ours.first_s,
  next_s: times[Math.floor(times.length * 0.99)] ?? 0,
  next_median_s: times[times.length >> 1] ?? 0,
  faults: Math.max(...all.map(({ ours }) => ours.size.faults)),
  largest,
  cases_s,
  total_s: (performance.now() - start) / 1000,
  ...(small > 0 && smallCases(small)),
  rescoreRatio: rescored.ratio,
  rescore_us: rescored.ours_us,
  refactor_us: rescored.reference_us,
  byKind: Object.fromEntries(
    KINDS.map((k) => {
      const list = singles.filter(({ c }) => c.kinds[0] === k)
      return [k, [list.filter(({ c, ours }) => right(c, ours)).length, list.length]]
    }),
  ),
}
if (!process.argv.includes('--json')) console.log(result)
console.log(JSON.stringify(result))
