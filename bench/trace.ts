import { crossingOf, findsAlong, FIND_KINDS, searchArea, type Find, type FindKind } from '../core/trace'
import { seeded } from '../tests/random-site'
import { crossed, drawGround, findable, walked } from './trace/ground'
import { drawLost, probesInOrder, spiralProbes } from './trace/lost'

// Tracing: made-up wires are walked with a noisy wand, and crossed; where the line lies, how deep, and what lies along
// it are told from the readings alone.

const flag = (name: string, usual: number) => {
  const at = process.argv.indexOf(name)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases, every_m] = [flag('--seed', 1), flag('--cases', 100), flag('--every', 0.25)]
const random = seeded(seed)
const holds = ({ low, high }: { low: number; high: number }, truth: number) => low <= truth && truth <= high
const round = (x: number) => Math.round(x * 1000) / 1000

function sections() {
  let [across, cover, placed] = [0, 0, 0]
  for (let i = 0; i < cases; i++) {
    const [line_m, cover_m] = [0.4 * (random() - 0.5), 0.2 + 0.7 * random()]
    const found = crossingOf(crossed(line_m, cover_m, random))!
    across += Number(holds(found.across_m, line_m))
    cover += Number(holds(found.cover_m, cover_m))
    placed += Number(Math.abs(found.across_m.mid - line_m) <= 0.05 && Math.abs(found.cover_m.mid / cover_m - 1) <= 0.1)
  }
  return { acrossHeld: round(across / cases), coverHeld: round(cover / cases), placed: round(placed / cases) }
}

/** A find counts that is within half a metre of something that is there. */
const NEAR_m = 0.5

function walks() {
  const of = Object.fromEntries(FIND_KINDS.map((k) => [k, { there: 0, found: 0, right: 0, held: 0 }])) as Record<
    FindKind,
    { there: number; found: number; right: number; held: number }
  >
  let [wrong, metres, slowest_ms] = [0, 0, 0]
  for (let i = 0; i < cases; i++) {
    const ground = drawGround(random)
    const begun = performance.now()
    const left: Find[] = findsAlong(walked(ground, every_m, random))
    slowest_ms = Math.max(slowest_ms, performance.now() - begun)
    metres += ground.long_m
    for (const truth of findable(ground)) {
      const tally = of[truth.kind]
      tally.there++
      const at = left.findIndex((f) => Math.abs(f.along_m.mid - truth.at_m) <= NEAR_m)
      if (at < 0) continue
      const [find] = left.splice(at, 1)
      tally.found++
      tally.right += Number(find!.kind === truth.kind)
      tally.held += Number(holds(find!.along_m, truth.at_m))
    }
    wrong += left.filter((f) => ground.things.every((t) => Math.abs(t.at_m - f.along_m.mid) > NEAR_m)).length
  }
  const sum = (key: 'there' | 'found' | 'held') => FIND_KINDS.reduce((all, k) => all + of[k][key], 0)
  return {
    recall: round(sum('found') / sum('there')),
    falsePer100m: round((100 * wrong) / metres),
    held: round(sum('held') / sum('found')),
    kinds: Object.fromEntries(
      FIND_KINDS.map((k) => [
        k,
        { ...of[k], recall: round(of[k].found / of[k].there), kindRight: round(of[k].right / of[k].found) },
      ]),
    ),
    slowest_ms: Math.round(slowest_ms),
  }
}

function boxes() {
  let [held, half, probes, spiral] = [0, 0, 0, 0]
  for (let i = 0; i < cases; i++) {
    const lost = drawLost(random, i)
    const area = searchArea(lost.evidence)!
    const own = area.cells.find((c) => Math.max(Math.abs(c.at.x_m), Math.abs(c.at.y_m)) <= area.cell_m / 2)
    held += Number(own !== undefined && own.held - own.p < 0.9)
    half += Number(own !== undefined && own.held - own.p < 0.5)
    probes += probesInOrder(area.probes)
    spiral += spiralProbes(lost)
  }
  return { areaHeld: round(held / cases), halfHeld: round(half / cases), probesToSpiral: round(probes / spiral) }
}

const result = { seed, cases, every_m, sections: sections(), walks: walks(), boxes: boxes() }
console.log(JSON.stringify(result, null, process.argv.includes('--json') ? 0 : 2))
