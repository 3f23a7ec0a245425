import { writeDeck } from '../core/formats'
import { poweredCase } from './random-powered'
import { solveDeck } from './simulator'

/** Agreement asked for, relative; below `SMALL` of the largest volts, of that. */
const RELATIVE = 1e-6
const SMALL = 1e-6

const cases = Number(process.argv[2] ?? 50)
let [worst, compared, floating] = [0, 0, 0]
const failures: string[] = []
for (let seed = 1; seed <= cases; seed++) {
  const {
    engine: { powered, solve },
    edits,
    title,
  } = poweredCase(seed)
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
    if (!(off <= RELATIVE)) bad++
  })
  compared += seen
  if (bad > 0 || seen < 10) failures.push(`${title}: ${bad} of ${seen} nodes differ`)
}
for (const failure of failures) console.error(failure)
console.log(JSON.stringify({ cases, compared, floating, worst, failed: failures.length }))
process.exitCode = failures.length === 0 ? 0 : 1
