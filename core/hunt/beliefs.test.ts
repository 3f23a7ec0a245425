import { randomSite, seeded } from '../../tests/random-site'
import { COMMON_METER, type FieldTest, type ReadingValue } from '../record'
import type { ControllerId, TerminalId } from '../site'
import type { Observation } from './beliefs'
import { Posterior } from './inference'
import { blurAt, predictorOf, type Prediction } from './predict'
import { huntContextOf } from './context'
import { huntOf } from './hunt'
import { USUAL_ODDS } from './odds'
import { catalogueOf, type FaultHypothesis } from './catalogue'

const A = 'A' as ControllerId
const { site } = randomSite(9, { loops: false })
const context = huntContextOf(site, A)!
const catalogue = catalogueOf(context)
const predictor = predictorOf(context, catalogue, COMMON_METER)
const at = (terminal: TerminalId) => ({ kind: 'terminal', controller: A, terminal }) as const
const ohms = (t: TerminalId, to: TerminalId = context.common): FieldTest => ({ kind: 'ohms', from: at(t), to: at(to) })
const earth = (t: TerminalId): FieldTest => ({ kind: 'ohms', from: at(t), to: { kind: 'earth', place: 'A' as never } })
const COIL = { mean: 0, sd: 0.035 }
const posterior = (readings: readonly Observation[]) => {
  const w = new Posterior(context, catalogue, predictor, () => COIL, 27, USUAL_ODDS.count)
  for (const r of readings) w.add(r)
  return w
}

/** Chance by which a made-up world is as the model says. */
function world(seed: number) {
  const random = seeded(seed)
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  const pick = <T>(list: readonly T[], weight: (x: T) => number): T => {
    let x = random() * list.reduce((s, y) => s + weight(y), 0)
    return list.find((y) => (x -= weight(y)) <= 0) ?? list.at(-1)!
  }
  const variant = (): FaultHypothesis => {
    const f = pick(catalogue.faults, (y) => y.prior)
    return pick(f.variants, (v) => v.share)
  }
  const coils = new Map<string, number>()
  /**
   * A reading as foreseen, with its coils and the meter off by chance; a fault's own figure stays at its cell's
   * middle.
   */
  const read = (seen: Prediction): ReadingValue | null => {
    switch (seen.kind) {
      case 'ohms': {
        const true_ =
          seen.mean +
          seen.coils.reduce((s, [d, c]) => s + c * (coils.get(d) ?? coils.set(d, COIL.sd * normal()).get(d)!), 0)
        return { kind: 'ohm', ohm: Math.max(0, true_ + blurAt(seen, true_) * normal()) }
      }
      case 'open':
        return { kind: 'open' }
      case 'insulated':
        return { kind: 'open' }
      case 'waters': {
        const valves = random() < seen.master ? seen.valves.filter(([, p]) => random() < p).map(([d]) => d) : []
        return { kind: 'waters', valves }
      }
      default:
        return null
    }
  }
  return { random, pick, variant, read }
}

test('in a world that is as the model says, beliefs come true as often as they say', () => {
  const { random, variant } = world(21)
  const bins = Array.from({ length: 3 }, () => ({ said: 0, came: 0, n: 0, spread: 0 }))
  for (let n = 0; n < 70; n++) {
    const here = world(n + 100)
    const count = random() * 100
    const faults = count < 15 ? [] : count < 75 ? [variant()] : [variant(), variant()]
    if (faults.length === 2 && catalogue.faults[faults[0]!.fault]!.key === catalogue.faults[faults[1]!.fault]!.key)
      continue
    const tests: FieldTest[] = [
      ...context.terminals.map((t): FieldTest => ({ kind: 'water', at: at(t) })),
      ...context.terminals.slice(0, 4).map((t) => ohms(t)),
      earth(context.common),
    ]
    const readings = tests.flatMap((test): Observation[] => {
      const seen = predictor.under(test, faults)
      const value =
        seen && (seen.kind === 'either' ? here.read(here.random() < seen.p ? seen.ill : seen.well) : here.read(seen))
      return value ? [{ test, value }] : []
    })
    const { parts, nothing } = posterior(readings).beliefs()
    const there = new Set(faults.map((v) => catalogue.faults[v.fault]!.key))
    for (const [p, came] of [
      ...[...parts].filter(([, p]) => p > 0.02).map(([key, p]) => [p, there.has(key)] as const),
      [nothing, faults.length === 0] as const,
    ]) {
      const bin = bins[Math.min(2, Math.floor(p * 3))]!
      bin.said += p
      bin.came += Number(came)
      bin.n++
      bin.spread += p * (1 - p)
    }
  }
  for (const b of bins) {
    expect(b.n).toBeGreaterThan(12)
    // Beliefs of one case hang together: the interval is that of a third as many.
    expect([b.said / b.n, Math.abs(b.came - b.said) < 3 * Math.sqrt(3 * b.spread) + 2]).toEqual([b.said / b.n, true])
  }
})

test('one leak that is read from many places stays one leak of its size: no pair of leaks is likelier for being two', () => {
  const leak = catalogue.faults.find((f) => f.cause === 'leak' && f.where.kind === 'run' && f.family === 'common')!
  const size = 3300
  const cell = leak.variants.find((v) => v.ohm! > 2000)!
  const hunt = huntOf(site, A, { meter: COMMON_METER })!
  for (const [i, t] of [context.common, ...context.terminals].entries()) {
    const seen = predictor.under(earth(t), [cell])
    if (seen?.kind !== 'ohms') continue
    const way_ohm = seen.mean - cell.ohm!
    hunt.take({ test: earth(t), value: { kind: 'ohm', ohm: size + way_ohm + 6 * Math.sin(i) } })
  }
  const { islands, parts } = hunt.beliefs()
  const explanations = islands.flat()
  const isLeak = (v: FaultHypothesis) => hunt.catalogue.faults[v.fault]!.cause === 'leak'
  // Something else may be wrong besides, that nothing was read of yet; but it is one leak.
  const withLeaks = (n: number) => explanations.filter((e) => e.faults.filter(isLeak).length === n)
  const held = (n: number) => withLeaks(n).reduce((s, e) => s + e.p, 0)
  expect(held(2) / held(1)).toBeLessThan(0.1)
  expect(parts.get(leak.key) ?? 0).toBeGreaterThan(0)
  const sizes = [...new Set(withLeaks(1).flatMap((e) => e.faults.filter(isLeak).map((v) => v.ohm!)))]
  expect(sizes.length).toBeGreaterThan(1)
  for (const ohm of sizes) expect(Math.abs(Math.log(ohm / size))).toBeLessThan(Math.log(1.05))
})

test('a joint made anew and still dead clears that joint: what is left moves on, by more than a look', () => {
  const coil = [...context.coilElement.keys()].find(
    (d) =>
      context.terminalOf(d) !== null &&
      catalogue.faults.some((f) => f.cause === 'coil_open' && f.where.kind === 'coil' && f.where.device === d),
  )!
  const t = context.terminalOf(coil)!
  const dead: Observation[] = [{ test: ohms(t), value: { kind: 'open' } }]
  const joint = [...posterior(dead).beliefs().parts]
    .filter(([key]) => key.startsWith('joint '))
    .sort((a, b) => b[1] - a[1])[0]![0]
  const splice = joint.slice(6) as never
  const after = (test: FieldTest) =>
    posterior([...dead, { test, value: { kind: 'looked', sound: true } }])
      .beliefs()
      .parts.get(joint) ?? 0
  const [before, looked, remade] = [
    posterior(dead).beliefs().parts.get(joint)!,
    after({ kind: 'look', splice }),
    after({ kind: 'remake', splice }),
  ]
  expect(looked).toBeLessThan(0.4 * before)
  expect(remade).toBeLessThan(0.01 * before + 1e-4)
})
