import { randomSite } from '../../../tests/random-site'
import { COMMON_METER, partKey, testKey, type FieldTest, type ReadingValue } from '../../record'
import {
  getOrThrow,
  terminalEnd,
  type ControllerId,
  type End,
  type PlaceId,
  type Site,
  type TerminalId,
} from '../../site'
import { huntContextOf } from '../context'
import { huntOf, type Hunt } from '../hunt'
import { choicesOf, choose, offers, prospectsOf } from '.'
import { crewAt, candidatesOf, minutesOf, USUAL_COSTS, walkingOf, type Crew } from '../tests'

const A = 'A' as ControllerId
const at = (t: string) => terminalEnd(A, t) as Extract<End, { kind: 'terminal' }>
const begun = (site: Site, dry: string): Hunt => {
  const hunt = huntOf(site, A, { meter: COMMON_METER })!
  for (const s of Object.values(site.stations))
    hunt.take({
      test: { kind: 'water', at: at(s.terminal) },
      value: { kind: 'waters', valves: s.terminal === dry ? [] : s.valves },
    })
  return hunt
}

test('what a test is said to mean comes true: after each word it may give, the parts are as foretold; weighed together they are as before', () => {
  let checked = 0
  for (const seed of [1, 4]) {
    const { site, stations } = randomSite(seed, { loops: false })
    const dry = stations[0]!
    const hunt = begun(site, dry)
    // On to a test that answers in words: there the answers are all that there is to know.
    for (let n = 0; n < 12; n++) {
      const stand = hunt.stand()
      if (stand.kind !== 'open') break
      const {
        candidate: { test },
        outcomes,
      } = stand.next
      if (test.kind === 'look' || test.kind === 'remake') {
        const before = hunt.beliefs().parts
        const mixed = new Map<string, number>()
        for (const o of outcomes) {
          const then = begun(site, dry)
          for (const r of taken) then.take(r)
          then.take({ test, value: { kind: 'looked', sound: o.kind === 'yes' } })
          const after = then.beliefs().parts
          for (const [k, p] of after) mixed.set(k, (mixed.get(k) ?? 0) + o.p * p)
          // A part may be at fault by itself and with others.
          const { key } = o.parts[0]!
          if (key !== null)
            expect(
              Math.abs((after.get(key) ?? 0) - o.parts.filter((x) => x.key === key).reduce((sum, x) => sum + x.p, 0)),
            ).toBeLessThan(0.12)
          checked++
        }
        for (const [k, p] of before) if (p > 0.05) expect(Math.abs((mixed.get(k) ?? 0) - p)).toBeLessThan(0.05)
        break
      }
      const value: ReadingValue =
        test.kind === 'ohms' || test.kind.startsWith('loop')
          ? { kind: 'open' }
          : test.kind === 'coil_volts'
            ? { kind: 'volt', volt: 0 }
            : { kind: 'volt', volt: 27 }
      taken.push({ test, value })
      hunt.take({ test, value })
    }
    taken.length = 0
  }
  expect(checked).toBeGreaterThan(3)
})
const taken: { test: FieldTest; value: ReadingValue }[] = []

test('minutes: a first reading costs more than the next, a box is opened once, a joint undone once, a switch at the cabinet sends the crew back unless a helper stands there', () => {
  const { site, stations } = randomSite(2, { loops: false })
  const context = huntContextOf(site, A)!
  const [candidates, walking] = [candidatesOf(context), walkingOf(context)]
  const cabinet = getOrThrow(site.controllers, A).place
  const of = (kind: FieldTest['kind'], station: string) =>
    candidates.find(({ test }) => test.kind === kind && 'device' in test && test.device === `V${station}`)!
  const cost = (crew: Crew, c: ReturnType<typeof of>) => minutesOf(context, USUAL_COSTS, walking, crew, c)
  const station = stations[0]!
  const box = of('coil_ohms', station).place
  const away_min = walking(cabinet, box) / 1.2 / 60
  const first = cost(crewAt(cabinet), of('coil_ohms', station))
  expect(first.minutes).toBeCloseTo(away_min + 3 + 4 + 1, 9)
  const second = cost(first.then, of('lead_earth', station))
  expect(second.minutes).toBeCloseTo(0.25, 9)
  // Volts at the coil need the station on: back to the cabinet and out again, or a call.
  expect(cost(second.then, of('coil_volts', station)).minutes).toBeCloseTo(2 * away_min + 0.25 + 1, 9)
  expect(cost({ ...second.then, helper: true }, of('coil_volts', station)).minutes).toBeCloseTo(0.25 + 0.25, 9)
  const lost = {
    ...site,
    places: { ...site.places, [box]: { ...getOrThrow(site.places, box), found: 'lost' as const } },
  }
  expect(
    minutesOf(huntContextOf(lost, A)!, USUAL_COSTS, walking, crewAt(cabinet), of('coil_ohms', station)).minutes -
      first.minutes,
  ).toBeCloseTo(20, 9)
  for (const c of candidates) expect(cost(crewAt(cabinet), c).minutes).toBeGreaterThan(0)
})

test('on foot: as far there as back, no farther than by way of a third place, straight across where both are on the map', () => {
  const { site } = randomSite(5, { loops: false })
  const walking = walkingOf(huntContextOf(site, A)!)
  const places = Object.keys(site.places) as PlaceId[]
  for (const a of places)
    for (const b of places) {
      expect(walking(a, b)).toBeCloseTo(walking(b, a), 9)
      for (const c of places) expect(walking(a, b)).toBeLessThanOrEqual(walking(a, c) + walking(c, b) + 1e-9)
    }
  const [a, b] = places as [PlaceId, PlaceId]
  const on = (x_m: number, y_m: number) => ({ value: { x_m, y_m }, how: 'seen' as const, on: null })
  const mapped: Site = {
    ...site,
    places: {
      ...site.places,
      [a]: { ...getOrThrow(site.places, a), position: on(0, 0) },
      [b]: { ...getOrThrow(site.places, b), position: on(30, 40) },
    },
  }
  expect(walkingOf(huntContextOf(mapped, A)!)(a, b)).toBeCloseTo(50, 9)
})

test('candidates: each once, at the place where it is made, and none that cannot say anything', () => {
  for (const seed of [1, 3, 9]) {
    const { site } = randomSite(seed)
    const hunt = huntOf(site, A, { meter: COMMON_METER })!
    const keys = hunt.candidates.map((c) => testKey(c.test))
    expect(new Set(keys).size).toBe(keys.length)
    for (const { test, place } of hunt.candidates) {
      expect(hunt.predictor.base(test)).not.toBeNull()
      if ('device' in test) expect(place).toBe(getOrThrow(site.devices, test.device).place)
      if ('splice' in test) expect(place).toBe(getOrThrow(site.splices, test.splice).place)
    }
  }
})

test('a part has one key, whichever of its ends comes first', () => {
  const ends = { from: 'A' as never, to: 'B1' as never }
  const pair = (one: string, two: string) =>
    partKey({ kind: 'pair', controller: A, one: one as TerminalId, two: two as TerminalId })
  expect(pair('3', '12')).toBe(pair('12', '3'))
  expect(partKey({ kind: 'touch', cable: 'K' as never, core: 'red' as never, other: 'white' as never, ...ends })).toBe(
    partKey({ kind: 'touch', cable: 'K' as never, core: 'white' as never, other: 'red' as never, ...ends }),
  )
})

/** Tests that were made; the zones were told before. */
const done = new Set<string>()
test('no test tells more than what it is passed over for: working the others out would choose the same', () => {
  for (const seed of [3, 5]) {
    const { site, stations } = randomSite(seed, { loops: false })
    const hunt = begun(site, stations[0]!)
    for (const s of Object.values(site.stations)) done.add(testKey({ kind: 'water', at: at(s.terminal) }))
    for (let n = 0; n < 4; n++) {
      const stand = hunt.stand()
      if (stand.kind !== 'open') break
      const pace = { context: hunt.context, costs: USUAL_COSTS, walking: hunt.walking }
      const offered = offers(hunt.beliefs()).flatMap(({ told, worth }) => {
        const from = [hunt.catalogue, hunt.predictor, told, hunt.candidates, done] as const
        const every = choicesOf(...from)
        const most = new Map(prospectsOf(...from).prospects.map((p) => [p.candidate, p.bits]))
        for (const t of every.tests) expect(t.bits).toBeLessThanOrEqual((most.get(t.candidate) ?? 0) + 1e-9)
        const best = choose(pace, hunt.crew(), every)
        return best ? [{ ...best, rate: best.rate * worth }] : []
      })
      const best = offered.reduce((m, o) => (o.rate > m.rate ? o : m))
      expect(testKey(stand.next.candidate.test)).toBe(testKey(best.first.candidate.test))
      done.add(testKey(stand.next.candidate.test))
      hunt.take({ test: stand.next.candidate.test, value: { kind: 'open' } })
    }
    done.clear()
  }
})
