import { size, type Edit } from '../core/circuit'
import {
  arrestorsOf,
  balanced,
  fewestSites,
  outputEdits,
  outputsOn,
  pathEngine,
  surgeBreaches,
  surgeRules,
  surgeTree,
  layoutOf,
} from '../core/path'
import { writeDeck } from '../core/formats'
import { huntPath } from '../tests/path-hunts'
import { randomPath } from '../tests/random-path'
import { solveDeck } from '../tests/simulator'
import { chance } from '../standins'

// Two-wire paths. Volts against the reference simulator on drawn paths; a path of 2000 decoders with 40 branches, every
// station on in turn, against a plain pass over the same numbers; its arrestors, and how they compare with trying every
// set of boxes on small paths. Drawn faults searched as advised, against opening box after box outward.

const argument = (name: string, usual: number) => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : Number(process.argv[at + 1])
}
const [seed, cases] = [argument('seed', 1), argument('cases', 60)]
const [DECODERS, BRANCHES, STATES] = [2000, 40, 400]
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!

// Against the reference.
const worst = { constant_current: 0, constant_impedance: 0 }
for (let n = 0; n < cases; n++) {
  const draw = { boxes: 3 + ((seed + n) % 25), looped: n % 3 === 0, exits: n % 2 === 0 ? (2 as const) : (1 as const) }
  const { site, path } = randomPath(seed * 1000 + n, draw)
  const on = outputsOn(site, path)
    .filter((_, i) => i % 5 === n % 5)
    .map((output, i) => ({ output, face: i === 0 ? ('inrush' as const) : ('holding' as const) }))
  for (const model of ['constant_current', 'constant_impedance'] as const) {
    const made = pathEngine(site, path, model, on)
    if (!made.ok) throw new Error(JSON.stringify(made.refusals))
    const { engine, path: known } = made.value
    const edits = outputEdits(engine.powered, known, on)
    const [solution, reference] = [engine.solve(edits), solveDeck(writeDeck(engine.powered, edits))]
    engine.powered.names.forEach((name, node) => {
      const theirs = reference.get(name)
      if (!theirs || solution.floating(node)) return
      const ours = solution.volts(node)
      const off = size({ re: ours.re - theirs.re, im: ours.im - theirs.im }) / Math.max(size(theirs), 26e-6)
      worst[model] = Math.max(worst[model], off)
    })
  }
}

// The long path.
const { site, path } = randomPath(seed, { boxes: DECODERS, branches: BRANCHES, lead_m: 0 })
const made = pathEngine(site, path, 'constant_current')
if (!made.ok) throw new Error(JSON.stringify(made.refusals))
const { engine, path: known } = made.value
const outputs = outputsOn(site, path)
const states: Edit[][] = outputs
  .filter((_, i) => i % Math.ceil(outputs.length / STATES) === 0)
  .map((output) => outputEdits(engine.powered, known, [{ output, face: 'inrush' }]))
const { nodeCount } = engine.powered
const target = { re: new Float64Array(nodeCount), im: new Float64Array(nodeCount) }
for (const edits of states) engine.solve(edits, target)
const start = performance.now()
for (const edits of states) engine.solve(edits, target)
const update_s = (performance.now() - start) / 1000 / states.length
function pass(re: Float64Array, im: Float64Array): number {
  let [sumRe, sumIm] = [0, 0]
  for (let n = 0; n < re.length; n++) {
    sumRe += re[n]!
    sumIm += im[n]!
  }
  return sumRe + sumIm
}
let kept = 0
for (let n = 0; n < 2000; n++) kept += pass(target.re, target.im)
const passes = Array.from({ length: 9 }, () => {
  const from = performance.now()
  for (let n = 0; n < 2000; n++) kept += pass(target.re, target.im)
  return (performance.now() - from) / 1000 / 2000
})
const pass_s = median(passes)

// Arrestors.
const began = performance.now()
const arrestors = arrestorsOf(site, { ...path, system: known.system })
const arrestors_s = (performance.now() - began) / 1000
let agreed = 0
for (let n = 0; n < 200; n++) {
  const small = randomPath(seed * 7000 + n, { boxes: 3 + (n % 8), lead_m: 0 })
  const tree = surgeTree(layoutOf(small.site, small.path))
  const rules = surgeRules(small.path.system!, 'ordinary')
  const all = tree.parent.map((_, i) => i).slice(1)
  const must = surgeBreaches(tree, rules, new Set(all)).length
  let least = Infinity
  for (let mask = 0; mask < 2 ** all.length; mask++) {
    const sites = new Set(all.filter((_, i) => (mask >> i) & 1))
    if (sites.size < least && surgeBreaches(tree, rules, sites).length === must) least = sites.size
  }
  agreed += Number(fewestSites(tree, rules).sites.length === least)
}
const random = chance(seed)
let divided = 0
for (let n = 0; n < 200; n++) {
  const g = Array.from({ length: 2 + (n % 9) }, () => 1 / [0.0209, 0.0132, 0.00829][Math.floor(random() * 3)]!)
  const loop = (mask: number) => {
    const a = g.reduce((s, x, i) => s + (((mask >> i) & 1) === 1 ? x : 0), 0)
    return 1 / a + 1 / (g.reduce((s, x) => s + x, 0) - a)
  }
  let least = Infinity
  for (let mask = 1; mask < 2 ** g.length - 1; mask++) least = Math.min(least, loop(mask))
  const ours = loop(balanced(g).reduce((mask, first, i) => mask | (first ? 1 << i : 0), 0))
  divided += Number(Math.abs(ours - least) < 1e-9 * least)
}

const hunted = Array.from({ length: 2 * cases }, (_, n) => {
  const { site, path } = randomPath(seed * 3000 + n, { boxes: 6 + (n % 15), exits: n % 2 === 0 ? 1 : 2 })
  return huntPath(site, path, seed * 777 + n)
})
const mean = (of: (h: (typeof hunted)[number]) => number) => hunted.reduce((s, h) => s + of(h), 0) / hunted.length
const byKind = Object.fromEntries(
  [...new Set(hunted.map((h) => h.truth.kind))].map((kind) => {
    const own = hunted.filter((h) => h.truth.kind === kind)
    const sum = (of: (h: (typeof hunted)[number]) => number) => own.reduce((s, h) => s + of(h), 0)
    return [kind, { cases: own.length, ratio: sum((h) => h.minutes) / sum((h) => h.outward_min) }]
  }),
)

const result = {
  seed,
  cases,
  worst,
  decoders: DECODERS,
  nodeCount,
  update_s,
  pass_s,
  updateOverPass: update_s / pass_s,
  arrestors_s,
  arrestors: arrestors.fewest.length,
  arrestorsAgreed: agreed,
  divisionsAgreed: divided,
  kept: Number.isFinite(kept),
  hunts: hunted.length,
  hunt_min: mean((h) => h.minutes),
  outward_min: mean((h) => h.outward_min),
  huntOverOutward: mean((h) => h.minutes) / mean((h) => h.outward_min),
  wrongPlaces: mean((h) => h.wrong),
  byKind,
}
console.log(process.argv.includes('--json') ? JSON.stringify(result) : JSON.stringify(result, null, 2))
