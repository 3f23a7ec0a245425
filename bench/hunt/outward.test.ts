import { COMMON_METER, type FieldTest } from '../../core/record'
import { chance, fieldOf, readFault } from '../../standins'
import type { Site, TerminalId } from '../../core/site'
import { Clock } from './crew'
import { propertyOf, waterTest } from './draw'
import { A } from './draw-fault'
import { outward } from './outward'

/** Eight stations on two branches; nothing in it deviates, and no look deceives. */
const site: Site = propertyOf(chance(77), 8, 2)
const steady = () => 0.5
function ended(...written: string[]) {
  const faults = written.map((w) => {
    const f = readFault(site, w)
    if (!f.ok) throw new Error(w)
    return f.value
  })
  const field = fieldOf(site, faults, { random: steady, noise: steady, ground_C: 20 })
  const asked: FieldTest[] = []
  const tags = Object.values(site.stations).map((s): TerminalId => s.terminal)
  const end = outward(site, new Map(tags.map((t) => [t, field.answer(waterTest(t), COMMON_METER)])), {
    ask: (test) => {
      asked.push(test)
      return field.answer(test, COMMON_METER)
    },
  })
  return { end: end.kind === 'named' ? end.key : end.kind, asked }
}
const jointAt = (device: string, port: string) =>
  `joint ${Object.entries(site.splices).find(([, s]) => s.ends.some((e) => e.kind === 'port' && e.device === device && e.port === port))![0]}`
const branches = Object.keys(site.cables).filter((c) => c.startsWith('K'))

test.each([
  [[], 'nothing'],
  [['coil-open V3'], 'coil V3'],
  [['coil-short V8'], 'coil V8'],
  [['swap A:2 A:5'], 'pair A 2 5'],
  [['stuck-open V4'], 'valve V4'],
  [['stuck-shut V6'], 'valve V6'],
  [['supply A'], 'supply A'],
  [['sensor A'], 'sensor A'],
  [['terminal A:7'], 'terminal A 7'],
  [['joint-open V5.a'], jointAt('V5', 'a')],
  [['joint-open V5.b'], jointAt('V5', 'b')],
  [[`open ${branches[0]}/white@A`], `run ${branches[0]} white A ${site.cables[branches[0] as never]!.stops[1]!.id}`],
  [['coil-open MV'], 'coil MV'],
])('what crews know finds the plain faults: %j is %s', (faults, key) => {
  expect(ended(...faults).end).toBe(key)
})

test('it is asked in the order of the page: supply first, ohms of dead terminals only, a box not before the cabinet has spoken', () => {
  const { asked } = ended('joint-open V5.a')
  expect(asked[0]!.kind).toBe('supply')
  const ohms = asked.filter((t) => t.kind === 'ohms')
  expect(ohms.every((t) => t.from.kind === 'terminal' && t.from.terminal === '5')).toBe(true)
  const firstBox = asked.findIndex((t) => 'device' in t || 'splice' in t)
  expect(asked.slice(firstBox).every((t) => 'device' in t || 'splice' in t)).toBe(true)
})

test('a crew is charged alike for whoever sends it: opening a box once, walking, the first reading more than the next', () => {
  const clock = new Clock(site)
  const taken = (test: FieldTest) => {
    const before = clock.minutes
    clock.test(test)
    return clock.minutes - before
  }
  const first = taken({ kind: 'supply', controller: A })
  expect(first).toBe(1)
  expect(taken({ kind: 'volts', at: { kind: 'terminal', controller: A, terminal: '1' as TerminalId } })).toBe(0.25)
  const box = taken({ kind: 'look', splice: jointAt('V5', 'a').slice(6) as never })
  expect(box).toBeGreaterThan(4)
  expect(taken({ kind: 'look', splice: jointAt('V5', 'a').slice(6) as never })).toBe(0.25)
  // Any two leads can be read against each other, also where the hunt would not ask it.
  expect(
    taken({
      kind: 'ohms',
      from: { kind: 'terminal', controller: A, terminal: '1' as TerminalId },
      to: { kind: 'terminal', controller: A, terminal: '6' as TerminalId },
    }),
  ).toBeGreaterThan(1)
  expect(() => clock.test({ kind: 'look', splice: 'nowhere' as never })).toThrow(/no such test/)
})

test('without a hint the boxes are gone through one by one: farther is longer, and the whole round is the longest', () => {
  const search = (places: readonly string[]) => {
    const clock = new Clock(site)
    clock.searchTo(places as never)
    return clock.minutes
  }
  const boxes = Object.keys(site.places).filter((p) => p !== 'A')
  const times = boxes.map((b) => search([b]))
  times.slice(1).forEach((m, i) => expect(m).toBeGreaterThan(times[i]!))
  expect(search([])).toBeGreaterThanOrEqual(times.at(-1)!)
})
