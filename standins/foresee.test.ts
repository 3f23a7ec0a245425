import { candidatesOf, circumstances, groundOf, huntOf, oddsBasis, type Catalogue, type Fault, type Variant } from '../core/hunt'
import { COMMON_METER, type FieldTest, type Meter } from '../core/record'
import { endKey, entries, must, type ControllerId, type Site } from '../core/site'
import { randomSite, seeded } from '../tests/random-site'
import { chance, fieldOf, type FieldFault } from '.'

const A = 'A' as ControllerId
const EXACT: Meter = { ...COMMON_METER, accuracy_ratio: 0, offset_ohm: 0 }
/** A property exactly as recorded, under mains that do not wander. */
const exactly = (site: Site): Site => ({ ...site, settings: { ...site.settings, coilTolerance_ratio: 0, lengthTolerance_ratio: 0, soundSpliceSpread_ohm: 0 } })
const steady = () => 0.5

/** The same fault as the stand-in takes it; null for what it has no word for. */
function fieldFault(site: Site, f: Fault, v: Variant): FieldFault | null {
  const { where, cause } = f
  const end = () => { const [splice, key] = f.at!.split('|') as [keyof typeof site.splices, string]; return must(site.splices, splice).ends.find((e) => endKey(e) === key)! }
  switch (where.kind) {
    case 'run': return cause === 'open' || cause === 'series' ? { kind: cause, cable: where.cable, core: where.core, from: where.from, ohm: v.ohm ?? 0 } : null
    case 'joint': return cause === 'open' || cause === 'series' ? { kind: cause === 'open' ? 'joint-open' : 'joint-series', end: end(), ohm: v.ohm ?? 0 } : null
    case 'coil': {
      const own = must(site.coilKinds, must(site.devices, where.device).coilKind!).resistance_ohm
      if (cause === 'coil_open' || cause === 'coil_short') return { kind: cause === 'coil_open' ? 'coil-open' : 'coil-short', device: where.device, fraction: 1 }
      if (cause === 'coil_part') return { kind: 'coil-part', device: where.device, fraction: 1 - v.ohm! / own }
      return { kind: cause === 'coil_dc' ? 'coil-dc' : 'coil-kind', device: where.device, ohm: v.ohm ?? 5 }
    }
    case 'valve': return { kind: cause === 'stuck_shut' ? 'stuck-shut' : 'stuck-open', device: where.device }
    case 'pair': return { kind: cause === 'swapped' ? 'swap' : 'doubled', controller: A, one: where.one, two: where.two }
    case 'terminal': return { kind: 'terminal', controller: A, terminal: where.terminal }
    case 'supply': case 'sensor': case 'water': return { kind: where.kind, controller: A }
    case 'touch': return null
  }
}

/** A variant of each cause, the cells by chance. */
function chosen(catalogue: Catalogue, random: () => number): Variant[] {
  const byCause = new Map<string, Fault[]>()
  for (const f of catalogue.faults) byCause.set(f.cause, [...(byCause.get(f.cause) ?? []), f])
  return [...byCause.values()].flatMap((list) => Array.from({ length: 3 }, () => { const f = list[Math.floor(random() * list.length)]!; return f.variants[Math.floor(random() * f.variants.length)]! }))
}

test('whatever is wrong, the hunt foresees what the field would answer: ohms, volts, clicks, zones and boxes, by two solvers that share nothing', () => {
  const compared = new Map<string, number>()
  for (let seed = 1; seed <= 14; seed++) {
    const site = exactly(randomSite(seed, { loops: false }).site)
    const random = seeded(seed + 40)
    const hunt = huntOf(site, A, { meter: EXACT })!
    const { candidates, foresight, catalogue } = { ...hunt, candidates: candidatesOf(groundOf(site, A)!, { tester: true, tracer: false, meter: true }) }
    const tests: FieldTest[] = [...candidates.map((c) => c.test), ...hunt.ground.terminals.flatMap((t): FieldTest[] => { const at = { kind: 'terminal', controller: A, terminal: t } as const; return [{ kind: 'water', at }, { kind: 'click', at }] })]
      .filter((t) => t.kind !== 'look' && t.kind !== 'remake' && !(t.kind === 'ohms' && t.to.kind === 'earth') && !t.kind.endsWith('_earth'))
    for (const v of chosen(catalogue, random)) {
      const fault = catalogue.faults[v.fault]!
      const wrong = fieldFault(site, fault, v)
      if (!wrong || fault.cause === 'intermittent') continue
      const field = fieldOf(site, [wrong], { random: steady, noise: chance(1), ground_C: site.settings.ground_C })
      for (let n = 0; n < 14; n++) {
        const test = tests[Math.floor(random() * tests.length)]!
        const seen = foresight.under(test, [v])
        if (seen === null) continue
        const value = field.answer(test, EXACT)
        const name = `seed ${seed}, ${fault.key} ${fault.cause} ${v.ohm ?? ''}: ${JSON.stringify(test)}`
        const told = { name, value, seen }
        switch (seen.kind) {
          case 'ohms': if (value.kind !== 'ohm' || Math.abs(value.ohm - seen.mean) > 0.06 + 2e-3 * seen.mean + (fault.cause === 'coil_dc' ? 3 : 0)) throw new Error(JSON.stringify(told)); break
          case 'open': if (value.kind !== 'open') throw new Error(JSON.stringify(told)); break
          // Mains at the middle of their range; a coil that just pulls in or just does not is either's guess.
          case 'volts': if (value.kind !== 'volt' || (Math.abs(value.volt - seen.mean) > 1.2 && Math.abs(seen.mean - 19) > 2.5)) throw new Error(JSON.stringify(told)); break
          case 'yes': { const yes = value.kind === 'heard' ? value.heard : value.kind === 'flows' ? value.flows : value.kind === 'lamp' ? value.lamp === 'lit' : value.kind === 'ohm'; if ((seen.p > 0.9 && !yes) || (seen.p < 0.1 && yes)) throw new Error(JSON.stringify(told)); break }
          case 'waters': {
            if (value.kind !== 'waters') throw new Error(JSON.stringify(told))
            for (const [device, p] of seen.valves) { const q = seen.master * p; if ((q > 0.9 && !value.valves.includes(device)) || (q < 0.1 && value.valves.includes(device))) throw new Error(JSON.stringify(told)) }
            break
          }
          case 'lamps': if (value.kind !== 'lamp' || [value.lamp === 'good' ? seen.good : value.lamp === 'open' ? seen.open : seen.short][0]! < 0.05) throw new Error(JSON.stringify(told)); break
          default:
        }
        compared.set(`${test.kind} ${seen.kind}`, (compared.get(`${test.kind} ${seen.kind}`) ?? 0) + 1)
      }
    }
  }
  expect([...compared.values()].reduce((s, n) => s + n, 0)).toBeGreaterThan(4000)
  for (const kind of ['ohms ohms', 'ohms open', 'volts volts', 'click yes', 'water waters', 'coil_ohms ohms', 'coil_ohms open', 'coil_volts volts', 'loop_lead ohms', 'loop_lead open', 'loop_common ohms', 'lead_through yes', 'swap_test yes', 'by_hand yes', 'energise yes'])
    expect([kind, (compared.get(kind) ?? 0) > 3]).toEqual([kind, true])
})

test('odds can be set, and what is no odds is refused', () => {
  expect(oddsBasis.parse({ families: { coil: 40 } }).families).toMatchObject({ coil: 40, splice: 30 })
  expect(oddsBasis.safeParse({ families: { coil: -1 } }).success).toBe(false)
  expect(oddsBasis.safeParse({ families: { luck: 1 } }).success).toBe(false)
  expect(circumstances.safeParse({ digging: ['B 1'] }).success).toBe(false)
  expect(entries(randomSite(1).site.controllers)).toHaveLength(1)
})
