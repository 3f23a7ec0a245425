import {
  candidatesOf,
  huntContextOf,
  huntOf,
  oddsBasis,
  USUAL_ODDS,
  type Catalogue,
  type Cause,
  type Fault,
  type Prediction,
  type FaultHypothesis,
} from '../core/hunt'
import { COMMON_METER, type FieldTest, type Meter, type ReadingValue } from '../core/record'
import {
  endKey,
  entries,
  getOrThrow,
  stopIndex,
  stopPositions_m,
  type CableId,
  type ControllerId,
  type Site,
  type StopId,
} from '../core/site'
import { randomSite, seeded } from '../tests/random-site'
import { chance, fieldOf, type FieldFault } from '.'

const A = 'A' as ControllerId
const EXACT: Meter = { ...COMMON_METER, accuracy_ratio: 0, offset_ohm: 0 }
/** A property exactly as recorded, under mains that do not wander. */
const exactly = (site: Site): Site => ({
  ...site,
  settings: { ...site.settings, coilTolerance_ratio: 0, lengthTolerance_ratio: 0, soundSpliceSpread_ohm: 0 },
})
const steady = () => 0.5

/** The same fault as the stand-in takes it; null for what it has no word for. */
function fieldFault(site: Site, f: Fault, v: FaultHypothesis): FieldFault | null {
  const { where, cause } = f
  const end = () => {
    const [splice, key] = f.at!.split('|') as [keyof typeof site.splices, string]
    return getOrThrow(site.splices, splice).ends.find((e) => endKey(e) === key)!
  }
  const fromOf = (part: { cable: CableId; from: StopId }) => stopIndex(getOrThrow(site.cables, part.cable), part.from)
  switch (where.kind) {
    case 'run':
      return cause === 'open' || cause === 'series'
        ? { kind: cause, cable: where.cable, core: where.core, from: fromOf(where), ohm: v.ohm ?? 0 }
        : null
    case 'joint':
      return cause === 'open' || cause === 'series'
        ? { kind: cause === 'open' ? 'joint-open' : 'joint-series', end: end(), ohm: v.ohm ?? 0 }
        : null
    case 'coil': {
      const own = getOrThrow(site.coilKinds, getOrThrow(site.devices, where.device).coilKind!).resistance_ohm
      if (cause === 'coil_open' || cause === 'coil_short')
        return { kind: cause === 'coil_open' ? 'coil-open' : 'coil-short', device: where.device, fraction: 1 }
      if (cause === 'coil_part') return { kind: 'coil-part', device: where.device, fraction: 1 - v.ohm! / own }
      return { kind: cause === 'coil_dc' ? 'coil-dc' : 'coil-kind', device: where.device, ohm: v.ohm ?? 5 }
    }
    case 'valve':
      return { kind: cause === 'stuck_shut' ? 'stuck-shut' : 'stuck-open', device: where.device }
    case 'pair':
      return { kind: cause === 'swapped' ? 'swap' : 'doubled', controller: A, one: where.one, two: where.two }
    case 'terminal':
      return { kind: 'terminal', controller: A, terminal: where.terminal }
    case 'supply':
    case 'sensor':
    case 'water':
      return { kind: where.kind, controller: A }
    case 'thread':
      return null
    case 'touch':
      return {
        kind: 'touch',
        cable: where.cable,
        core: where.core,
        other: where.other,
        from: fromOf(where),
        ohm: v.ohm ?? 0,
      }
  }
}
/**
 * By how much the stand-in goes its own way: conductors touch in the middle of a stretch, so much wire from a cell's
 * own place; a latching coil has its own few ohms.
 */
function ownWay(site: Site, { where, cause }: Fault): number {
  if (cause === 'coil_dc') return 3
  if (where.kind !== 'touch') return 0
  const at = stopPositions_m(getOrThrow(site.cables, where.cable))
  const cable = getOrThrow(site.cables, where.cable)
  return 2 * THINNEST_ohmPerM * (at[stopIndex(cable, where.to)]!.value - at[stopIndex(cable, where.from)]!.value)
}
const THINNEST_ohmPerM = 0.036

/**
 * What shorted turns leave of a coil's impedance is the one's guess and the other's: they are compared by ohms alone.
 */
const isGuess = (test: FieldTest, causes: readonly Cause[]): boolean =>
  causes.includes('coil_part') && !['ohms', 'coil_ohms', 'loop_lead', 'loop_common', 'lead_through'].includes(test.kind)

/** A variant of each cause that the stand-in has a word for, the cells by chance. */
function chosen(catalogue: Catalogue, random: () => number): FaultHypothesis[] {
  const byCause = new Map<string, Fault[]>()
  for (const f of catalogue.faults)
    if (f.cause !== 'unlisted') byCause.set(f.cause, [...(byCause.get(f.cause) ?? []), f])
  return [...byCause.values()].flatMap((list) =>
    Array.from({ length: 3 }, () => {
      const f = list[Math.floor(random() * list.length)]!
      return f.variants[Math.floor(random() * f.variants.length)]!
    }),
  )
}

/**
 * Whether a reading is what was foreseen; what is said to be a matter of chance is not judged. `more`: what else may
 * lie between the two, ohms or volts.
 */
function asForeseen(seen: Prediction, value: ReadingValue, more: number): boolean {
  const sure = (p: number, yes: boolean) => (p > 0.9 ? yes : p < 0.1 ? !yes : true)
  switch (seen.kind) {
    case 'ohms':
      return value.kind === 'ohm' && Math.abs(value.ohm - seen.mean) <= 0.06 + 2e-3 * seen.mean + more
    case 'open':
      return value.kind === 'open' || (more > 0 && value.kind === 'ohm' && value.ohm > 1e4)
    // Mains at the middle of their range; a coil that just pulls in or just does not is either's guess.
    case 'volts':
      return (
        value.kind === 'volt' &&
        (Math.abs(value.volt - seen.mean) <= Math.max(1.2 + 0.3 * more, 2 * seen.sd) || Math.abs(seen.mean - 19) <= 2.5)
      )
    case 'yes':
      return sure(
        seen.p,
        value.kind === 'heard'
          ? value.heard
          : value.kind === 'flows'
            ? value.flows
            : value.kind === 'lamp'
              ? value.lamp === 'lit'
              : value.kind === 'ohm',
      )
    case 'waters':
      return (
        value.kind === 'waters' &&
        seen.valves.every(([device, p]) => sure(seen.master * p, value.valves.includes(device)))
      )
    case 'lamps':
      return (
        value.kind === 'lamp' &&
        (value.lamp === 'good' ? seen.good : value.lamp === 'open' ? seen.open : seen.short) >= 0.05
      )
    default:
      return true
  }
}

/** What can be tried on a random property: everything but looks and earth, which are chance or have their own tests. */
function prepared(seed: number) {
  const site = exactly(randomSite(seed, { loops: false }).site)
  const hunt = huntOf(site, A, { meter: EXACT })!
  const tests: FieldTest[] = [
    ...candidatesOf(huntContextOf(site, A)!, { tester: true, tracer: false, meter: true }).map((c) => c.test),
    ...hunt.context.terminals.flatMap((t): FieldTest[] => {
      const at = { kind: 'terminal', controller: A, terminal: t } as const
      return [
        { kind: 'water', at },
        { kind: 'click', at },
      ]
    }),
  ].filter(
    (t) =>
      t.kind !== 'look' &&
      t.kind !== 'remake' &&
      !(t.kind === 'ohms' && t.to.kind === 'earth') &&
      !t.kind.endsWith('_earth'),
  )
  const beside = hunt.context.terminals.flatMap((terminal) =>
    [...hunt.context.coilElement.keys()].map((device): FieldTest => ({
      kind: 'coil_beside',
      device,
      live: { kind: 'terminal', controller: A, terminal },
    })),
  )
  return { site, tests, beside, catalogue: hunt.catalogue, predictor: hunt.predictor, random: seeded(seed + 40) }
}

test('whatever is wrong, the hunt foresees what the field would answer: ohms, volts, clicks, zones and boxes, by two solvers that share nothing', () => {
  const compared = new Map<string, number>()
  for (let seed = 1; seed <= 14; seed++) {
    const { site, tests, beside, catalogue, predictor, random } = prepared(seed)
    for (const [k, v] of chosen(catalogue, random).entries()) {
      const fault = catalogue.faults[v.fault]!
      const wrong = fieldFault(site, fault, v)
      if (!wrong || fault.cause === 'intermittent') continue
      const field = fieldOf(site, [wrong], { random: steady, noise: chance(1), ground_C: site.settings.ground_C })
      for (let n = 0; n < 15; n++) {
        const test = n < 14 ? tests[Math.floor(random() * tests.length)]! : beside[k % beside.length]!
        const seen = predictor.under(test, [v])
        if (seen === null || isGuess(test, [fault.cause])) continue
        const value = field.answer(test, EXACT)
        if (!asForeseen(seen, value, ownWay(site, fault)))
          throw new Error(JSON.stringify({ seed, key: fault.key, cause: fault.cause, ohm: v.ohm, test, value, seen }))
        compared.set(`${test.kind} ${seen.kind}`, (compared.get(`${test.kind} ${seen.kind}`) ?? 0) + 1)
      }
    }
  }
  expect([...compared.values()].reduce((s, n) => s + n, 0)).toBeGreaterThan(4000)
  for (const kind of [
    'ohms ohms',
    'ohms open',
    'volts volts',
    'click yes',
    'water waters',
    'coil_ohms ohms',
    'coil_ohms open',
    'coil_volts volts',
    'coil_beside volts',
    'loop_lead ohms',
    'loop_lead open',
    'loop_common ohms',
    'lead_through yes',
    'swap_test yes',
    'by_hand yes',
    'energise yes',
  ])
    expect([kind, (compared.get(kind) ?? 0) > 3]).toEqual([kind, true])
})

test('two faults at once are foreseen too, also on one stretch: what is cut there and touches there', () => {
  let [compared, together] = [0, 0]
  for (let seed = 1; seed <= 14; seed++) {
    const { site, tests, catalogue, predictor, random } = prepared(seed)
    const list = chosen(catalogue, random).filter((v) => catalogue.faults[v.fault]!.cause !== 'intermittent')
    const touches = list.filter((v) => catalogue.faults[v.fault]!.cause === 'touch')
    // The conductor that touches is cut besides.
    const onOne = touches.flatMap((v) => {
      const own = catalogue.faults.find(
        (f) =>
          f.where.kind === 'run' &&
          f.cause === 'open' &&
          f.elements.some((e) => catalogue.faults[v.fault]!.elements.includes(e)),
      )
      return own ? [[v, own.variants[0]!] as const] : []
    })
    for (const [i, j] of [
      ...onOne,
      ...Array.from(
        { length: 30 },
        () => [list[Math.floor(random() * list.length)]!, list[Math.floor(random() * list.length)]!] as const,
      ),
    ]) {
      const [f, g] = [catalogue.faults[i.fault]!, catalogue.faults[j.fault]!]
      const wrong = [fieldFault(site, f, i), fieldFault(site, g, j)]
      if (f.key === g.key || wrong.includes(null)) continue
      const field = fieldOf(site, wrong as FieldFault[], {
        random: steady,
        noise: chance(1),
        ground_C: site.settings.ground_C,
      })
      const sharing = f.elements.some((e) => g.elements.includes(e))
      for (let n = 0; n < 8; n++) {
        const test = tests[Math.floor(random() * tests.length)]!
        const seen = predictor.under(test, [i, j])
        // Cut and touching on one stretch: which side of the cut touches is the one's guess and the other's.
        if (seen === null || isGuess(test, [f.cause, g.cause]) || (sharing && seen.kind !== 'ohms')) continue
        const value = field.answer(test, EXACT)
        const more = ownWay(site, f) + ownWay(site, g)
        if (
          sharing
            ? seen.kind === 'ohms' && !(seen.mean >= 0 && seen.noise < 1 + 0.1 * seen.mean)
            : !asForeseen(seen, value, more)
        )
          throw new Error(
            JSON.stringify({ seed, f: [f.key, f.cause, i.ohm], g: [g.key, g.cause, j.ohm], test, value, seen }),
          )
        compared++
        if (sharing) together++
      }
    }
  }
  expect([compared > 1500, together > 40]).toEqual([true, true])
})

test('odds can be set, and what is no odds is refused', () => {
  expect(oddsBasis.parse({ families: { coil: 40 } }).families).toMatchObject({ coil: 40, splice: 30 })
  expect(oddsBasis.safeParse({ families: { coil: -1 } }).success).toBe(false)
  expect(oddsBasis.safeParse({ families: { luck: 1 } }).success).toBe(false)
  expect(oddsBasis.parse({})).toEqual(USUAL_ODDS)
  expect(entries(randomSite(1).site.controllers)).toHaveLength(1)
})
