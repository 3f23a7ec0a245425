import { randomSite, seeded } from '../../../tests/random-site'
import { quarryLake } from '../../../demo/quarry-lake'
import { COMMON_METER, partKey, type FieldTest, type ReadingValue } from '../../record'
import { terminalEnd, type ControllerId, type DeviceId, type SpliceId, type TerminalId } from '../../site'
import type { Beliefs, Observation } from '../beliefs'
import { huntContextOf, type HuntContext } from '../context'
import type { Predictor } from '../memoize'
import { logSum } from '../normal'
import { blurAt, predictorOf, type Prediction } from '../predict'
import { catalogueOf, type Catalogue, type Fault, type FaultHypothesis } from '../catalogue'
import { countWeights } from './count'
import { modelOf, showsOf, type Model } from './classes'
import { logOf } from './units'
import { constant, orOneMore } from './polynomial'
import { Posterior } from './posterior'

const A = 'A' as ControllerId
const COIL = { mean: 0, sd: 0.035 }
const COUNT = [20, 40, 20, 12, 8]
/** Leaks as finely as where a reading shows one. */
const LEAKS = [300, 2000, 2030, 30_000].map((from) => ({ from, to: from * 1.01 }))

/** A catalogue of some faults with one or two cells each, numbered anew. */
function fewOf(chosen: readonly Fault[], random: () => number): Catalogue {
  const variants: FaultHypothesis[] = []
  const faults = chosen.map((f, index): Fault => {
    const cells = [...f.variants].sort(() => random() - 0.5).slice(0, 2)
    const own = cells.map((v, k): FaultHypothesis => ({
      ...v,
      index: variants.length + k,
      fault: index,
      share: 1 / cells.length,
    }))
    variants.push(...own)
    return { ...f, index, variants: own, prior: 0.02 + 0.1 * random() }
  })
  return { faults, variants, keys: [...new Set(faults.map((f) => f.key))] }
}

/** Parts that show in no reading, with most of the odds, as on a property where a few parts of many are read. */
const [UNREAD, UNREAD_ODDS] = [40, 0.1]
function withUnread({ faults, variants, keys }: Catalogue): Catalogue {
  const added = Array.from({ length: UNREAD }, (_, k) => {
    const device = `unread ${k}` as DeviceId
    const [index, fault] = [variants.length + k, faults.length + k]
    const cell: FaultHypothesis = {
      ...variants[0]!,
      index,
      fault,
      mods: { alters: [], joins: [] },
      shifted: [],
      share: 1,
      ohm: null,
      sd_ohm: null,
      along: null,
      leak: null,
    }
    const where = { kind: 'valve', device } as const
    const none = { besides: [], links: false, at: null, elements: [], withState: false, prior: UNREAD_ODDS }
    return {
      ...none,
      index: fault,
      where,
      key: partKey(where),
      cause: 'stuck_shut',
      family: 'supply',
      variants: [cell],
    } as Fault
  })
  return {
    faults: [...faults, ...added],
    variants: [...variants, ...added.flatMap((f) => f.variants)],
    keys: [...keys, ...added.map((f) => f.key)],
  }
}

/** Every set of at most four faults at parts of their own, added up outright. */
function byEnumeration(model: Model, readings: readonly Observation[]) {
  const { catalogue, odds, partOf, keyOf } = model
  const partOdds = new Float64Array(keyOf.length)
  catalogue.variants.forEach((v) => {
    partOdds[partOf[v.fault]!]! += odds[v.index]!
  })
  const besides = partOdds.slice(-UNREAD).reduce((p, o) => orOneMore(p, o), constant(1))
  const every = countWeights(COUNT, partOdds)
  // What is unread stands beside every set.
  const weights = every.map((_, k) => every.slice(k).reduce((s, w, n) => s + w * besides[n]!, 0))
  const logs: number[] = []
  const byKey = catalogue.keys.map((): number[] => [])
  let nothing = 0
  const visit = (from: number, set: FaultHypothesis[], odd: number): void => {
    const log = logOf(model, readings, set) + Math.log(odd * weights[set.length]!)
    logs.push(log)
    if (set.length === 0) nothing = Math.log(every[0]!) + logOf(model, readings, [])
    for (const key of new Set(set.map((v) => keyOf[partOf[v.fault]!]!))) byKey[key]!.push(log)
    if (set.length === 4) return
    for (let i = from; i < catalogue.variants.length - UNREAD; i++) {
      const v = catalogue.variants[i]!
      if (set.some((w) => partOf[w.fault] === partOf[v.fault])) continue
      visit(i + 1, [...set, v], odd * odds[v.index]!)
    }
  }
  visit(0, [], 1)
  const total = logSum(logs)
  return {
    parts: byKey.map((list) => Math.exp(logSum(list) - total)),
    nothing: Math.exp(nothing - total),
  }
}

/** What a meter might show where a test would show this. */
function shown(seen: Prediction, random: () => number): ReadingValue {
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  switch (seen.kind) {
    case 'ohms': {
      const coils = seen.coils.reduce((sum, [, c]) => sum + c * COIL.sd * normal(), 0)
      return { kind: 'ohm', ohm: Math.max(0, seen.mean + coils + blurAt(seen, seen.mean) * normal()) }
    }
    case 'waters':
      return {
        kind: 'waters',
        valves: random() < seen.master ? seen.valves.flatMap(([d, p]) => (random() < p ? [d] : [])) : [],
      }
    case 'volts':
      return { kind: 'volt', volt: Math.max(0, seen.mean + 0.3 * normal()) }
    case 'yes':
      return { kind: 'looked', sound: random() < seen.p }
    default:
      return { kind: 'open' }
  }
}

/** What is believed after some readings, as it is summed up and by adding up all sets outright. */
function bothWays(
  context: HuntContext,
  catalogue: Catalogue,
  predictor: Predictor,
  readings: readonly Observation[],
): [Beliefs, ReturnType<typeof byEnumeration>] {
  const coils = () => COIL
  const shows = showsOf({ catalogue, predictor, coils })
  const bySelf = catalogue.variants
  const model = modelOf({ catalogue, predictor, coils }, { read: null, nominal: 27 }, (test) => shows(test, bySelf), [])
  const posterior = new Posterior(context, catalogue, predictor, coils, 27, COUNT)
  for (const r of readings) posterior.add(r)
  return [posterior.beliefs(), byEnumeration(model, readings)]
}

/** By how much the belief in any part is off on a small property; `looks`: some of its joints are looked at too. */
function offOn(seed: number, looks: boolean): number {
  const random = seeded(seed)
  const context = huntContextOf(randomSite(seed, { loops: false }).site, A)!
  const every = catalogueOf(context, { leaks: LEAKS })
  const listed = every.faults.filter((f) => f.cause !== 'intermittent' && f.cause !== 'unlisted')
  const few = listed.sort(() => random() - 0.5).slice(0, 16)
  const unlisted = every.faults.filter((f) => f.cause === 'unlisted').slice(0, 2)
  const catalogue = withUnread(fewOf([...few, ...unlisted], random))
  const predictor = predictorOf(context, catalogue, COMMON_METER)
  const truth = catalogue.variants
    .slice(0, -UNREAD)
    .filter((v) => catalogue.faults[v.fault]!.cause !== 'unlisted' && random() < 0.12)
    // Two leaks at once are not followed where neither explains anything alone.
    .filter((v, k, all) => v.leak === null || all.findIndex((w) => w.leak !== null) === k)
    .slice(0, 3)
  const joints = new Set(few.flatMap(({ where }) => (where.kind === 'joint' ? [where.splice] : [])))
  const tests = [
    ...testsOf(context, random),
    ...(looks ? [...joints].map((splice): FieldTest => ({ kind: 'look', splice })) : []),
  ]
  const readings = tests.flatMap((test): Observation[] => {
    const seen = predictor.under(test, truth)
    return seen === null || predictor.base(test) === null ? [] : [{ test, value: shown(seen, random) }]
  })
  const [ours, outright] = bothWays(context, catalogue, predictor, readings)
  const off = catalogue.keys
    .slice(0, -UNREAD)
    .map((key, part) => Math.abs((ours.parts.get(key) ?? 0) - outright.parts[part]!))
  return Math.max(...off, Math.abs(ours.nothing + ours.misread - outright.nothing))
}

test('on small properties every part is believed as by adding up all sets of at most four faults outright', () => {
  const offs = Array.from({ length: 10 }, (_, k) => offOn(k + 1, false)).sort((a, b) => b - a)
  // Four faults at two threads that touch are more than is added up: that shows once.
  const [worst, second] = offs as [number, number]
  expect(worst).toBeLessThan(0.2)
  expect(second).toBeLessThan(0.06)
  expect(offs.filter((off) => off > 0.01).length).toBeLessThanOrEqual(4)
})

test('and so where joints are looked at that several threads share: one of them may be it instead of a wire', () => {
  const offs = Array.from({ length: 4 }, (_, k) => offOn(k + 41, true)).sort((a, b) => b - a)
  expect(offs[0]).toBeLessThan(0.02)
  expect(offs[1]).toBeLessThan(0.01)
})

test('a joint that holds the common is weighed instead of a wire, however small its part is', () => {
  const context = huntContextOf(quarryLake(), A)!
  const every = catalogueOf(context)
  const wire = every.faults.find((f) => f.key === 'run K1 blue A B2' && f.cause === 'open')!
  const joint = every.faults.find((f) => f.at === 'B2-j71|port V3 b' && f.cause === 'open')!
  const few = fewOf([wire, joint], seeded(1))
  const odds = [0.1, 0.004]
  const catalogue = withUnread({ ...few, faults: few.faults.map((f, k) => ({ ...f, prior: odds[k]! })) })
  const predictor = predictorOf(context, catalogue, COMMON_METER)
  const [ours, outright] = bothWays(context, catalogue, predictor, [
    {
      test: { kind: 'ohms', from: terminalEnd(A, '3'), to: terminalEnd(A, 'C') } as FieldTest,
      value: { kind: 'open' },
    },
    { test: { kind: 'look', splice: 'B2-j71' as SpliceId }, value: { kind: 'looked', sound: true } },
  ])
  expect(outright.parts[0]).toBeLessThan(0.999)
  for (const [k, key] of [wire.key, joint.key].entries())
    expect(Math.abs(ours.parts.get(key)! - outright.parts[k]!)).toBeLessThan(3e-4)
})

/** Zones, and some readings of ohms and volts. */
function testsOf(context: HuntContext, random: () => number): FieldTest[] {
  const at = (terminal: TerminalId) => ({ kind: 'terminal', controller: A, terminal }) as const
  const { terminals, common } = context
  return terminals.flatMap((t, i): FieldTest[] => [
    ...(context.stationAt(t) && random() < 0.6 ? [{ kind: 'water', at: at(t) } as const] : []),
    ...(random() < 0.7 ? [{ kind: 'ohms', from: at(t), to: at(common) } as const] : []),
    ...(random() < 0.2
      ? [{ kind: 'ohms', from: at(t), to: { kind: 'earth', place: context.site.controllers[A]!.place } } as const]
      : []),
    ...(random() < 0.15 && terminals[i + 1] ? [{ kind: 'ohms', from: at(t), to: at(terminals[i + 1]!) } as const] : []),
  ])
}
