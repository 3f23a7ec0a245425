import type { Edit, Engine } from '../core/circuit'
import { writeDeck } from '../core/formats'
import { outputEdits, outputsOn, pathEngine } from '../core/path'
import { poweredCase } from './random-powered'
import { randomPath } from './random-path'
import { solveDeck } from './simulator'

/**
 * Agreement asked for, relative; below `SMALL` of the largest volts, of that. `LINEAR`: of paths
 * without constant currents.
 */
const RELATIVE = 1e-6
const LINEAR = 1e-8
const SMALL = 1e-6

const cases = Number(process.argv[2] ?? 50)
let [worst, compared, floating] = [0, 0, 0]
const failures: string[] = []
/** Every node of one network in one state, by the engine and by the simulator. */
function compare({ powered, solve }: Engine, edits: readonly Edit[], title: string, within = RELATIVE): void {
  const solution = solve(edits)
  const reference = solveDeck(writeDeck(powered, edits, title))
  const largest = Math.max(...[...reference.values()].map((v) => Math.hypot(v.re, v.im)))
  let [bad, seen] = [0, 0]
  powered.names.forEach((name, node) => {
    if (solution.floating(node)) {
      floating++
      if (reference.has(name)) bad++
      return
    }
    const theirs = node === powered.sources[0]!.common ? { re: 0, im: 0 } : reference.get(name)
    if (!theirs) {
      bad++
      return
    }
    const ours = solution.volts(node)
    const off =
      Math.hypot(ours.re - theirs.re, ours.im - theirs.im) / Math.max(Math.hypot(theirs.re, theirs.im), SMALL * largest)
    worst = Math.max(worst, off)
    seen++
    if (!(off <= within)) bad++
  })
  compared += seen
  if (bad > 0 || seen < 10) failures.push(`${title}: ${bad} of ${seen} nodes differ`)
}
for (let seed = 1; seed <= cases; seed++) {
  const { engine, edits, title } = poweredCase(seed)
  compare(engine, edits, title)
}
// Two-wire paths, with branches, loops and two ways out, some outputs on: both ways of taking a load.
for (let seed = 1; seed <= Math.ceil(cases / 2.5); seed++) {
  const { site, path } = randomPath(seed, {
    boxes: 4 + (seed % 17),
    looped: seed % 3 === 0,
    exits: seed % 2 === 0 ? 2 : 1,
  })
  const outputs = outputsOn(site, path).filter((_, i) => i % (2 + (seed % 4)) === 0)
  const on = outputs.map((output, i) => ({ output, face: i === 0 ? ('inrush' as const) : ('holding' as const) }))
  for (const model of ['constant_current', 'constant_impedance'] as const) {
    const made = pathEngine(site, path, model, on)
    if (!made.ok) throw new Error(JSON.stringify(made.refusals))
    const { engine, path: known } = made.value
    const within = model === 'constant_current' ? RELATIVE : LINEAR
    compare(engine, outputEdits(engine.powered, known, on), `path ${seed}, ${model}`, within)
  }
}
for (const failure of failures) console.error(failure)
console.log(JSON.stringify({ cases, compared, floating, worst, failed: failures.length }))
process.exitCode = failures.length === 0 ? 0 : 1
