import * as fc from 'fast-check'
import { quarryLake } from '../../demo/quarry-lake'
import { huntOf, USUAL_ODDS } from '../hunt'
import { COMMON_METER, noFacts, partKey, type Facts } from '../record'
import type { ControllerId, DeviceId, Site, SpliceId, Write } from '../site'
import { adoptedOdds, cellsOf, livesOf, poissonInterval, ratesOf, together, type Cell, type JournalChange } from '.'

const BEGAN = '2020-01-01T00:00:00Z'
const demo = quarryLake()
const J = Object.keys(demo.splices).find((id) => demo.splices[id as SpliceId]!.ends.length > 1) as SpliceId
const made = (day: string) => ({ value: day, how: 'seen' as const, on: day })
const bad = { state: 'open' as const, since: null, note: '' }
const good = { state: 'sound' as const, since: null, note: '' }

/** A property of one joint, and its journal as changes are made to it one after the other. */
function journalled(first: object) {
  let site = { ...demo, devices: {}, splices: { [J]: { ...demo.splices[J]!, ...first } } } as Site
  const journal: JournalChange[] = []
  return {
    set(at: string, field: string, value: unknown, id = at) {
      const was = site.splices[J] as Record<string, unknown>
      const writes: Write[] = [{ path: ['splices', J, field], before: was[field] ?? null, after: value }]
      site = { ...site, splices: { [J]: { ...was, [field]: value } } } as unknown as Site
      journal.push({ id, at, undoes: null, writes })
    },
    undo(at: string) {
      const last = journal.at(-1)!
      const { path, before, after } = last.writes[0]!
      const was = site.splices[J]!
      site = { ...site, splices: { [J]: { ...was, [path[2]!]: before } } } as unknown as Site
      journal.push({ id: at, at, undoes: last.id, writes: [{ path, before: after, after: before }] })
    },
    lives: (facts: Facts = noFacts()) =>
      livesOf(site, facts, journal, BEGAN).map((l) => [
        l.kind,
        l.made,
        l.from.slice(0, 10),
        l.until?.slice(0, 10),
        l.end,
      ]),
  }
}
const hunted = (began: string, at: string): Facts => {
  const facts = noFacts()
  facts.jobs.j = { at: began } as Facts['jobs'][string]
  const where = { kind: 'joint' as const, splice: J }
  facts.findings.f = { ...{ job: 'j', at, author: 'Ann', where }, says: '', belief: null, how: '' }
  return facts
}

test('a joint lives from the day it is seen until it turns bad; what is learned of it was so before; made anew it begins again', () => {
  const j = journalled({ connector: 'unknown', made: null, condition: good })
  j.set('2021-01-01T08:00:00Z', 'connector', 'bare_twist')
  j.set('2021-02-01T08:00:00Z', 'made', made('2004-05-05'))
  j.set('2023-01-01T08:00:00Z', 'condition', bad)
  j.set('2023-03-01T08:00:00Z', 'connector', 'gel_crimp_3')
  j.set('2023-03-01T08:00:00Z', 'made', made('2023-03-01'), 'm')
  j.set('2023-03-01T08:00:00Z', 'condition', good, 'c')
  expect(j.lives()).toEqual([
    ['bare_twist', '2004-05-05', '2020-01-01', '2023-01-01', 'failed'],
    ['gel_crimp_3', '2023-03-01', '2023-03-01', undefined, 'lives'],
  ])
  j.set('2024-01-01T08:00:00Z', 'condition', bad, 'mistaken')
  j.undo('2024-01-02T08:00:00Z')
  expect(j.lives().map((l) => l.at(-1))).toEqual(['failed', 'lives'])
})

test('one that was bad when it was first seen was not seen to fail; a hunt ends the life that was led when it began', () => {
  expect(
    journalled({ condition: bad })
      .lives()
      .map((l) => l.at(-1)),
  ).toEqual(['found_bad'])
  const j = journalled({ connector: 'dry_nut', made: made('2010-01-01'), condition: good })
  const facts = hunted('2022-05-01T08:00:00Z', '2022-05-01T09:30:00Z')
  // Mended, and nothing of it written into the record: from then on it is new.
  expect(j.lives(facts)).toEqual([
    ['dry_nut', '2010-01-01', '2020-01-01', '2022-05-01', 'failed'],
    ['dry_nut', '2022-05-01', '2022-05-01', undefined, 'lives'],
  ])
  // Made anew in the record by the batch before the finding: what it was held by until then failed.
  j.set('2022-05-01T09:29:00Z', 'connector', 'gel_crimp_3')
  j.set('2022-05-01T09:29:00Z', 'made', made('2022-05-01'), 'm')
  expect(j.lives(facts)).toEqual([
    ['dry_nut', '2010-01-01', '2020-01-01', '2022-05-01', 'failed'],
    ['gel_crimp_3', '2022-05-01', '2022-05-01', undefined, 'lives'],
  ])
  expect(j.lives(hunted('2020-01-01T08:00:00Z', '2020-01-01T09:00:00Z'))[0]!.at(-1)).toBe('found_bad')
  // Known to be bad before the hunt that mends it began: it failed once.
  const known = journalled({ connector: 'dry_nut', made: null, condition: good })
  known.set('2022-04-01T08:00:00Z', 'condition', bad)
  known.set('2022-05-01T09:29:00Z', 'condition', good)
  expect(known.lives(facts).map((l) => l.at(-1))).toEqual(['failed', 'lives'])
})

test('years under our eyes fall to the age a part had then; kinds and ages add up to the same', () => {
  const life = {
    part: 'joint',
    kind: 'dry_nut',
    made: '2017-01-01',
    from: '2018-01-01',
    until: null,
    end: 'lives',
  } as const
  const cells = cellsOf(together([life, life]), '2023-01-01')
  expect(cells.map((c) => [c.age, c.now, Math.round(c.years * 100) / 100])).toEqual([
    ['to_2', 0, 2],
    ['to_5', 0, 6],
    ['to_10', 2, 2],
  ])
  const day = fc
    .integer({ min: 0, max: 9000 })
    .map((d) => new Date(Date.UTC(2000, 0, 1) + d * 86_400_000).toISOString())
  const lives = fc.array(
    fc.record({
      part: fc.constantFrom('joint' as const, 'coil' as const),
      kind: fc.constantFrom('', 'a', 'b'),
      made: fc.option(day.map((d) => d.slice(0, 10))),
      dates: fc.tuple(day, day).map((d) => d.sort()),
      end: fc.constantFrom('lives' as const, 'gone' as const, 'failed' as const, 'found_bad' as const),
    }),
    { maxLength: 30 },
  )
  fc.assert(
    fc.property(lives, (drawn) => {
      const list = drawn.map(({ dates: [from, until], ...l }) => ({
        ...l,
        from: from!,
        until: l.end === 'lives' ? null : until!,
      }))
      const rates = ratesOf(cellsOf(together(list), '2025-01-01'))
      for (const part of ['joint', 'coil'] as const) {
        const own = list.filter((l) => l.part === part)
        const days = own.reduce((sum, l) => {
          const whole = (t: string) => Date.parse(t.slice(0, 10)) / 86_400_000
          return sum + whole(l.until ?? '2025-01-01') - whole(l.from)
        }, 0)
        for (const rows of Object.values(rates[part])) {
          expect(rows.reduce((sum, r) => sum + r.years, 0)).toBeCloseTo(days / 365.25, 6)
          expect(rows.reduce((sum, r) => sum + r.failed, 0)).toBe(own.filter((l) => l.end === 'failed').length)
        }
      }
    }),
    { numRuns: 200 },
  )
})

test('intervals of counts are those of Garwood’s table, and meet Wilson and Hilferty’s where counts are many', () => {
  const table: [number, number, number][] = [
    [0, 0, 3.689],
    [1, 0.0253, 5.572],
    [5, 1.623, 11.668],
    [10, 4.795, 18.39],
    [50, 37.11, 65.92],
  ]
  for (const [n, low, high] of table) {
    const found = poissonInterval(n)
    expect(Math.abs(found.low - low)).toBeLessThan(0.006)
    expect(Math.abs(found.high - high)).toBeLessThan(0.006)
  }
  const [exact, near] = [poissonInterval(500), poissonInterval(501)]
  expect(near.low - exact.low).toBeCloseTo(1, 1)
  expect(near.high - exact.high).toBeCloseTo(1, 1)
})

const cell = (part: Cell['part'], kind: string, age: Cell['age'], years: number, failed: number): Cell => ({
  ...{ part, kind, age, years, failed },
  now: 0,
  foundBad: 0,
})

test('odds that are adopted: as usual where nothing was counted, as counted where much was, kind and age told apart', () => {
  expect(adoptedOdds([], {})).toEqual(USUAL_ODDS)
  // Dry nuts four times as often as crimps, and twice as often past ten years; old ones are mostly dry nuts.
  const rate = (kind: string, age: string) => 0.01 * (kind === 'dry_nut' ? 4 : 1) * (age === 'to_20' ? 2 : 1)
  const cells = (
    [
      ['dry_nut', 'to_20', 90_000],
      ['dry_nut', 'to_2', 10_000],
      ['gel_crimp_3', 'to_20', 10_000],
      ['gel_crimp_3', 'to_2', 90_000],
    ] as const
  ).map(([kind, age, years]) => cell('joint', kind, age, years, Math.round(years * rate(kind, age))))
  const odds = adoptedOdds(cells, {})
  expect(odds.connector.dry_nut / odds.connector.gel_crimp_3).toBeCloseTo(4, 1)
  // The usual weight grows from 1.1 to 2.5 between these ages already; what is adopted makes it twice.
  expect((odds.ages.joint.to_20 * 2.5) / (odds.ages.joint.to_2 * 1.1)).toBeCloseTo(2, 1)
  const few = adoptedOdds([cell('joint', 'dry_nut', 'to_2', 10, 1), cell('joint', 'gel_crimp_3', 'to_2', 10, 0)], {})
  expect(few.connector.dry_nut).toBeGreaterThan(5.9)
  expect(few.connector.dry_nut).toBeLessThan(6.6)
})

test('families follow what hunts found; the engine heeds what it was given', () => {
  const odds = adoptedOdds([], { coil: 360, joint: 20, run: 20 })
  const whole = Object.values(odds.families).reduce((s, w) => s + w, 0)
  expect(odds.families.coil / whole).toBeCloseTo((360 + (40 * 25) / 101) / 440, 6)
  const [first, other] = Object.keys(demo.devices).filter((d) => demo.devices[d as DeviceId]!.kind === 'coil')
  const coil = demo.devices[first as DeviceId]!
  const apart = { ...demo.coilKinds[coil.coilKind!]!, name: 'Apart' }
  const site = {
    ...demo,
    coilKinds: { ...demo.coilKinds, apart },
    devices: { ...demo.devices, [first!]: { ...coil, coilKind: 'apart' } },
  } as unknown as Site
  const priorOf = (basis: typeof odds) => {
    const { faults } = huntOf(site, 'A' as ControllerId, { meter: COMMON_METER, odds: basis })!.catalogue
    const all = (of: typeof faults) => of.reduce((sum, f) => sum + f.prior, 0)
    const dead = (device: string) =>
      all(
        faults.filter(
          (f) => f.key === partKey({ kind: 'coil', device: device as DeviceId }) && f.cause === 'coil_open',
        ),
      )
    return {
      coils: all(faults.filter((f) => f.family === 'coil')),
      joints: all(faults.filter((f) => f.family === 'splice')),
      times: dead(first!) / dead(other!),
    }
  }
  const [usual, adopted] = [priorOf(USUAL_ODDS), priorOf(odds)]
  expect(adopted.coils).toBeGreaterThan(2 * usual.coils)
  expect(adopted.joints).toBeLessThan(usual.joints)
  expect(usual.times).toBeCloseTo(1, 9)
  expect(priorOf({ ...USUAL_ODDS, coilKinds: { Apart: 10 } }).times).toBeCloseTo(10, 6)
})
