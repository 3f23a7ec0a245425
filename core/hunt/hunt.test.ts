import { randomSite, seeded } from '../../tests/random-site'
import type { Fault as Edit } from '../circuit'
import { predict, sceneOf, sceneWith } from '../expect'
import { COMMON_METER, type FieldTest, type OhmsTest } from '../record'
import { Draft, terminalEnd, type ControllerId, type End, type PlaceId, type Site } from '../site'
import type { Explanation } from './beliefs'
import { predictorOf } from './predict'
import { huntContextOf } from './context'
import { huntOf } from './hunt'
import { QUIET } from './odds'
import { oddsBasis } from './odds-schema'
import { catalogueOf, conductorRunsOf } from './catalogue'
import { placesOf } from './where'

const A = 'A' as ControllerId
const at = (t: string) => terminalEnd(A, t) as Extract<End, { kind: 'terminal' }>
const ohms = (from: string, to = 'C'): OhmsTest => ({ kind: 'ohms', from: at(from), to: at(to) })
const small = (): Site =>
  new Draft('Small')
    .place('A', 'cabinet')
    .place('B1')
    .controller('A', 'A', 2)
    .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B1', 60],
      ],
      cores: ['white', 'c1', 'c2'],
    })
    .valve('V1', 'B1', 'k')
    .valve('V2', 'B1', 'k')
    .station('A:1', 'One', ['V1'])
    .station('A:2', 'Two', ['V2'])
    .join('A', ['A:C', 'K.white>'])
    .join('A', ['A:1', 'K.c1>'])
    .join('A', ['A:2', 'K.c2>'])
    .join('B1', ['K.c1<', 'V1.a'])
    .join('B1', ['K.c2<', 'V2.a'])
    .join('B1', ['K.white<', 'V1.b', 'V2.b'])
    .site()

test('odds add up to one, follow their families and causes, and go up where somebody dug', () => {
  const context = huntContextOf(randomSite(6, { loops: false }).site, A)!
  const { faults, variants } = catalogueOf(context)
  expect(faults.reduce((s, f) => s + f.prior, 0)).toBeCloseTo(1, 9)
  expect(variants.every((v, i) => v.index === i)).toBe(true)
  for (const f of faults) expect(f.variants.reduce((s, v) => s + v.share, 0)).toBeCloseTo(1, 9)
  const family = (list: typeof faults, name: string) =>
    list.filter((f) => f.family === name).reduce((s, f) => s + f.prior, 0)
  expect(family(faults, 'splice') / family(faults, 'coil')).toBeCloseTo(30 / 25, 6)
  const dug = catalogueOf(context, { circumstances: { ...QUIET, digging: ['R0B1' as PlaceId] } }).faults
  // Of the runs, those that end at the box gain eightfold against one that does not.
  const opens = (list: typeof faults) =>
    list.filter((f) => f.where.kind === 'run' && f.cause === 'open' && f.family === 'conductor')
  const [by, far] = [true, false].map((here) =>
    opens(faults).find((f) => placesOf(context.site, f.where).includes('R0B1' as PlaceId) === here)!,
  )
  const after = (key: string) => opens(dug).find((f) => f.key === key)!.prior
  expect(after(by!.key) / by!.prior / (after(far!.key) / far!.prior)).toBeCloseTo(8, 6)
  // Lightning raises coils against all else, and all still add up to one.
  const struck = catalogueOf(context, { circumstances: { ...QUIET, lightning: true } }).faults
  expect(struck.reduce((s, f) => s + f.prior, 0)).toBeCloseTo(1, 9)
  expect(family(struck, 'coil') / family(struck, 'splice')).toBeCloseTo(4 * (25 / 30), 6)
  const rare = catalogueOf(context, { odds: oddsBasis.parse({ families: { coil: 1 } }) }).faults
  expect(family(rare, 'coil')).toBeLessThan(family(faults, 'coil') / 10)
})

test('what a test would show under a fault is what the record’s own prediction says with that fault in it', () => {
  let compared = 0
  for (let seed = 1; seed <= 25; seed++) {
    const { site, stations } = randomSite(seed)
    const context = huntContextOf(site, A)!
    const catalogue = catalogueOf(context)
    const predictor = predictorOf(context, catalogue, COMMON_METER)
    const scene = sceneOf(site)
    const random = seeded(seed)
    const graded = catalogue.variants.filter(
      (v) =>
        ['open', 'series', 'coil_part', 'coil_open'].includes(catalogue.faults[v.fault]!.cause) &&
        v.mods.alters.length === 1,
    )
    for (let n = 0; n < 25; n++) {
      const v = graded[Math.floor(random() * graded.length)]!
      const { element } = v.mods.alters[0]!
      const link = (context.meterState.powered.parts[element]!.of as { id: string }).id
      const index = scene.network.elements.findIndex((e) => e.link?.id === link)
      const now = v.mods.alters[0]!.to(context.meterState.powered.parts[element]!.z)
      const edit: Edit =
        now === null
          ? { kind: 'open', elements: [index] }
          : { kind: 'series', element: index, ohm: now.re - scene.network.elements[index]!.ohm }
      const test = ohms(stations[Math.floor(random() * stations.length)]!, random() < 0.5 ? 'C' : stations[0]!)
      if (test.from.kind === 'terminal' && test.to.kind === 'terminal' && test.from.terminal === test.to.terminal)
        continue
      const [ours, theirs] = [predictor.under(test, [v])!, predict(sceneWith(scene, [edit]), test, COMMON_METER)]
      expect([seed, n, ours.kind]).toEqual([seed, n, theirs.kind])
      // A reading that is moved by less than a meter shows is left at the sound one.
      if (ours.kind === 'ohms' && theirs.kind === 'ohms')
        expect(Math.abs(ours.mean - theirs.expected_ohm)).toBeLessThan(0.005)
      compared++
    }
  }
  expect(compared).toBeGreaterThan(400)
})

test('runs go from opening to opening; nothing that hangs on nothing is a suspect', () => {
  const { site } = randomSite(3, { loops: false })
  const context = huntContextOf(site, A)!
  for (const { where, from, to } of conductorRunsOf(context)) {
    const cable = site.cables[where.cable]!
    const cut = new Set<string>(cable.cores[where.core]!.cutAt)
    for (let i = from + 1; i < to; i++) expect(cut.has(cable.stops[i]!.id)).toBe(false)
    expect([
      from === 0 || cut.has(cable.stops[from]!.id),
      to === cable.stops.length - 1 || cut.has(cable.stops[to]!.id),
    ]).toEqual([true, true])
  }
  expect(huntContextOf({ ...site, controllers: {} } as Site, A)).toBeNull()
})

test('the next test tells the most per minute: of two equal suspects the one look that parts them; after it is read it is not asked again', () => {
  const hunt = huntOf(small(), A, { meter: COMMON_METER })!
  hunt.take({ test: { kind: 'water', at: at('1') } as FieldTest, value: { kind: 'waters', valves: [] } })
  hunt.take({ test: { kind: 'water', at: at('2') } as FieldTest, value: { kind: 'waters', valves: ['V2' as never] } })
  const asked = new Set<string>()
  for (let n = 0; n < 6; n++) {
    const stand = hunt.stand()
    if (stand.kind !== 'open') break
    const { test } = stand.next.candidate
    expect(asked.has(JSON.stringify(test))).toBe(false)
    asked.add(JSON.stringify(test))
    expect(stand.next.bits).toBeGreaterThan(0)
    expect(stand.next.outcomes.reduce((s, o) => s + o.p, 0)).toBeCloseTo(1, 1)
    hunt.take({
      test,
      value:
        test.kind === 'ohms'
          ? { kind: 'open' }
          : test.kind === 'look' || test.kind === 'remake'
            ? { kind: 'looked', sound: true }
            : test.kind === 'coil_volts' || test.kind === 'volts' || test.kind === 'supply'
              ? { kind: 'volt', volt: 27 }
              : { kind: 'open' },
    })
  }
  expect(hunt.minutes()).toBeGreaterThan(1)
  expect(hunt.crew().place).toBe('B1' as PlaceId)
})

test('what is left after a repair is as likely as it was beside the part before: alone, or one of two, either of them found first', () => {
  const hunt = huntOf(small(), A, { meter: COMMON_METER })!
  const coil = 'coil V1'
  hunt.take({ test: { kind: 'coil_ohms', device: 'V1' as never }, value: { kind: 'open' } })
  const before = hunt.beliefs().parts
  expect(before.get(coil)).toBeGreaterThan(0.9)
  hunt.mended(hunt.part(coil))
  const after = hunt.beliefs().parts
  const elsewhere = [...before].filter(([key]) => key.endsWith(' V2') || key.includes(' c2 '))
  expect(elsewhere.length).toBeGreaterThan(2)
  for (const [key, p] of elsewhere) expect(Math.abs(after.get(key)! - p)).toBeLessThan(0.15 * p)
})

test('three things wrong at once, summed up: an open thread, one with ohms too many and a leak are believed together, nothing named yet', () => {
  const hunt = huntOf(small(), A, { meter: COMMON_METER })!
  hunt.take({ test: ohms('1'), value: { kind: 'open' } })
  hunt.take({ test: ohms('2'), value: { kind: 'ohm', ohm: 71 } })
  const earth = { kind: 'ohms', from: at('C'), to: { kind: 'earth', place: 'A' as PlaceId } } as const
  hunt.take({ test: earth, value: { kind: 'ohm', ohm: 4000 } })
  const { parts, nothing, islands } = hunt.beliefs()
  const causesOf = (e: Explanation) => e.faults.map((v) => hunt.catalogue.faults[v.fault]!.cause)
  const sum = (list: readonly Explanation[]) => list.reduce((s, e) => s + e.p, 0)
  const held = (is: (causes: readonly string[]) => boolean) =>
    Math.max(...islands.map((list) => sum(list.filter((e) => is(causesOf(e)))) / sum(list)))
  expect(held((c) => c.length >= 2)).toBeGreaterThan(0.95)
  expect(held((c) => c.includes('leak'))).toBeGreaterThan(0.75)
  expect(nothing).toBeLessThan(1e-6)
  expect([...parts.values()].reduce((s, p) => s + p, 0)).toBeGreaterThan(2.7)
  expect(hunt.stand().kind).toBe('open')
})

test('a figure that nothing listed explains is a slip before anything else, and never nothing; given again, something that is not listed', () => {
  const hunt = huntOf(small(), A, { meter: COMMON_METER })!
  const sound = hunt.predictor.base(ohms('1')) as { mean: number }
  for (const t of ['1', '2']) hunt.take({ test: ohms(t), value: { kind: 'ohm', ohm: sound.mean } })
  expect(hunt.beliefs()).toMatchObject({ nothing: expect.closeTo(1, 0), misread: expect.closeTo(0, 6) })
  // Two threads that are sound to the common are not cut from each other.
  const strange = { test: ohms('1', '2'), value: { kind: 'ohm', ohm: 500 } } as const
  hunt.take(strange)
  const { nothing, misread } = hunt.beliefs()
  expect(nothing).toBeLessThan(1e-6)
  expect(misread).toBeGreaterThan(0.2)
  hunt.take(strange)
  const again = hunt.beliefs()
  expect(again.misread).toBeLessThan(misread / 50)
  const unlisted = (b: typeof again) => ['1', '2'].map((t) => b.parts.get(`thread A ${t}`) ?? 0)
  for (const p of unlisted(again)) expect(p).toBeGreaterThan(0.2)
  // What is read through both threads is not read of one of them: it is as strange as it was.
  hunt.take({ test: { kind: 'click', at: at('1') }, value: { kind: 'heard', heard: true } })
  expect(unlisted(hunt.beliefs())[0]).toBeLessThan(unlisted(again)[0]!)
})
