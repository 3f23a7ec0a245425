import {
  closings,
  climateOf,
  conditionsFor,
  engineOf,
  LEAST_ohm,
  poweredOf,
  runningOf,
  type Edit,
  type Engine,
  type Running,
  type TerminalAt,
} from '../core/circuit'
import { writeDeck } from '../core/formats'
import type { ControllerId, TerminalId } from '../core/site'
import { readRaw, simulate } from '../tests/simulator'
import { manyStations } from './property'

// The engine against Debian's circuit simulator: a property of 256 stations, every station on in turn while its
// master valve is live, every node's complex volts each time. Then how an update compares with a plain pass over the
// same numbers, and how factor and update grow. Only ratios count; seconds are printed.

const STATIONS = 256
const RUNS = 5
const at = (n: number): TerminalAt => ({ controller: 'A' as ControllerId, terminal: String(n) as TerminalId })
const master: TerminalAt = { controller: 'A' as ControllerId, terminal: 'MV' as TerminalId }
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!

function powered(count: number) {
  const site = manyStations(count)
  const running: Running = { live: [], faces: new Map() }
  const one = runningOf(site, [at(1)])
  if (!one.ok || one.value.live.length !== 2) throw new Error('the bench property has lost its master valve')
  return poweredOf(
    site,
    conditionsFor(running, {
      climate: climateOf(site),
      frequency_Hz: 60,
      phase: 'optimistic',
      mains_ratio: 1,
      wire: 'nominal',
      live: [master],
    }),
  )
}

function closingsOf(engine: Engine, count: number): Edit[][] {
  return Array.from({ length: count }, (_, i) => closings(engine.powered, [at(i + 1)]))
}

// Ours: every state's whole vectors.
const net = powered(STATIONS)
const engine = engineOf(net)
const states = closingsOf(engine, STATIONS)
const fresh = () => ({ re: new Float64Array(net.nodeCount), im: new Float64Array(net.nodeCount) })
const vectors = states.map((edits) => {
  const target = fresh()
  engine.solve(edits, target)
  return target
})
const scratch = fresh()
const oursRuns: number[] = []
for (let run = 0; run < 8 * RUNS; run++) {
  const start = performance.now()
  for (const edits of states) engine.solve(edits, scratch)
  oursRuns.push((performance.now() - start) / 1000)
}
const ours_s = median(oursRuns)

// Theirs: one process, each terminal's contact altered, an analysis, a binary file, everything forgotten again.
const open: Edit[] = states.map((s): Edit => ({ ...(s[0] as Edit & { kind: 'close' }) }))
const deck = writeDeck(net, open).replace(/^\.ac .*\n|^\.print .*\n/gm, '')
const contacts = [...deck.matchAll(new RegExp(`^(R\\d+) \\S+ \\S+ ${LEAST_ohm}$`, 'gm'))]
  .map((m) => m[1]!.toLowerCase())
  .slice(-STATIONS)
const off = 1e17
const prepare = contacts.map((r) => `alter ${r} = ${off}`)
const loop = (from: number, to: number) =>
  Array.from({ length: to - from }, (_, k) => from + k).flatMap((i) => [
    `alter ${contacts[i]} = ${LEAST_ohm}`,
    'ac lin 1 60 60',
    `write out${i}.raw`,
    'destroy all',
    `alter ${contacts[i]} = ${off}`,
  ])
const timed = (commands: string[], outputs: string[]) => {
  const start = performance.now()
  const files = simulate(deck, commands, outputs)
  return { files, time_s: (performance.now() - start) / 1000 }
}
const names = Array.from({ length: STATIONS }, (_, i) => `out${i}.raw`)
const theirs: number[] = []
let [worst, compared] = [0, 0]
for (let run = 0; run < RUNS; run++) {
  const all = timed([...prepare, ...loop(0, STATIONS)], names)
  // Its start, its parsing and the preparation, with one state, come off.
  const one = timed([...prepare, ...loop(0, 1)], [names[0]!])
  theirs.push(((all.time_s - one.time_s) * STATIONS) / (STATIONS - 1))
  if (run > 0) continue
  vectors.forEach((ours, i) => {
    const reference = readRaw(all.files[names[i]!]!)
    const largest = 27
    net.names.forEach((name, node) => {
      const their = reference.get(name)
      if (!their) return
      const slot = engine.slotOf[node]!
      worst = Math.max(
        worst,
        Math.hypot(ours.re[slot]! - their.re, ours.im[slot]! - their.im) /
          Math.max(Math.hypot(their.re, their.im), 1e-6 * largest),
      )
      compared++
    })
  })
}
if (compared < STATIONS * 1000 || worst > 1e-6)
  throw new Error(`not the same answers: ${compared} compared, worst ${worst}`)
const theirs_s = median(theirs)

function sumOf(re: Float64Array, im: Float64Array): number {
  let [sumRe, sumIm] = [0, 0]
  for (let n = 0; n < re.length; n++) {
    sumRe += re[n]!
    sumIm += im[n]!
  }
  return sumRe + sumIm
}

// One update against a plain pass that sums the same arrays.
const REPEAT = 2000
const updates: number[] = []
const passes: number[] = []
let sink = 0
for (let run = 0; run < 4 * RUNS; run++) {
  const edits = closings(net, [at(STATIONS)])
  let start = performance.now()
  for (let k = 0; k < REPEAT; k++) engine.solve(edits, scratch)
  updates.push((performance.now() - start) / REPEAT)
  start = performance.now()
  for (let k = 0; k < REPEAT; k++) {
    sink += sumOf(scratch.re, scratch.im)
  }
  passes.push((performance.now() - start) / REPEAT)
}
const [update_ms, pass_ms] = [median(updates), median(passes)]

// Faults and states together: a station on, its master valve, and one fault somewhere, by kinds in turn.
const stretches = net.parts.flatMap((part, element) => (part.of.kind === 'stretch' ? [element] : []))
const coils = net.parts.flatMap((part, element) => (part.of.kind === 'coil' ? [element] : []))
const faulty = Array.from({ length: 4000 }, (_, k): Edit[] => {
  const [wire, coil, on] = [
    stretches[(k * 7919) % stretches.length]!,
    coils[(k * 104729) % coils.length]!,
    states[k % STATIONS]!,
  ]
  const fault = (
    [
      { kind: 'open', element: wire },
      { kind: 'series', element: wire, ohm: 4 },
      { kind: 'leak', node: net.parts[wire]!.b, ohm: 900 },
      { kind: 'coil_part', element: coil, fraction: 0.4 },
      { kind: 'bridge', a: net.parts[wire]!.a, b: net.parts[coil]!.b, ohm: 1 },
    ] satisfies Edit[]
  )[k % 5]!
  return [...on, fault]
})
const faultsStart = performance.now()
for (const edits of faulty) engine.solve(edits, scratch)
const faultsPerSecond = faulty.length / ((performance.now() - faultsStart) / 1000)

// Growth of factoring and one update, on code that has run before.
for (let k = 0; k < 200; k++) engineOf(powered(16)).solve([])
const sizes = [64, 256, 1024, 4096].map((count) => {
  const of = powered(count)
  const edits = closings(of, [at(count)])
  const once = () => {
    const start = performance.now()
    engineOf(of).solve(edits)
    return performance.now() - start
  }
  const times = Array.from({ length: count > 2000 ? 7 : 25 }, once)
  return { stations: count, nodes: of.nodeCount, time_ms: Math.min(...times) }
})
const growthExponent = slope(sizes.map((s) => [Math.log(s.stations), Math.log(s.time_ms)]))

function slope(points: readonly (readonly [number, number])[] | number[][]): number {
  const mean = (k: number) => points.reduce((sum, p) => sum + p[k]!, 0) / points.length
  const [mx, my] = [mean(0), mean(1)]
  return (
    points.reduce((sum, p) => sum + (p[0]! - mx) * (p[1]! - my), 0) /
    points.reduce((sum, p) => sum + (p[0]! - mx) ** 2, 0)
  )
}

const result = {
  stations: STATIONS,
  nodes: net.nodeCount,
  states: STATIONS,
  compared,
  worst,
  ours_s,
  reference_s: theirs_s,
  ratioVsReference: theirs_s / ours_s,
  update_us: update_ms * 1000,
  pass_us: pass_ms * 1000,
  updateOverPass: update_ms / pass_ms,
  faultsPerSecond,
  sizes,
  growthExponent,
  sink: Number.isFinite(sink),
}
if (!process.argv.includes('--json')) {
  console.log(
    `${STATIONS} states of ${net.nodeCount} nodes: ours ${(ours_s * 1000).toFixed(1)} ms, ` +
      `simulator ${theirs_s.toFixed(2)} s, ratio ${result.ratioVsReference.toFixed(0)}; ` +
      `${compared} volts compared, worst ${worst.toExponential(1)}`,
  )
  console.log(
    `update ${result.update_us.toFixed(1)} µs, plain pass ${result.pass_us.toFixed(2)} µs, ` +
      `${result.updateOverPass.toFixed(1)} passes; growth ${growthExponent.toFixed(2)}; ` +
      `${faultsPerSecond.toFixed(0)} states with a fault a second`,
  )
  console.table(sizes)
}
console.log(JSON.stringify(result))
