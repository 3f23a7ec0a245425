import { huntOf } from '../../core/hunt'
import type { ReadingValue } from '../../core/record'
import { brokenInvariants, siteSchema } from '../../core/site'
import { A, caseOf, KINDS, METER, sweepTests, waterTest } from './draw'

const cases = Array.from({ length: 60 }, (_, n) => caseOf(5000 + n, { stations: 6 + (n % 5) }))

test('a case is the same by the same seed, and another by another', () => {
  for (const c of cases.slice(0, 5))
    expect(
      JSON.stringify([
        caseOf(c.seed, { stations: Object.keys(c.site.stations).length }).truth,
        caseOf(c.seed, { stations: Object.keys(c.site.stations).length }).faults,
      ]),
    ).toBe(JSON.stringify([c.truth, c.faults]))
  expect(new Set(cases.map((c) => JSON.stringify(c.site))).size).toBe(cases.length)
})

test('what is wrong has the key of a part that the hunt can name, and every kind is drawn', () => {
  for (const c of cases) {
    const keys = new Set(huntOf(c.site, A, { meter: METER })!.catalogue.keys)
    for (const key of c.truth) expect([c.seed, key, keys.has(key)]).toEqual([c.seed, key, true])
  }
  const drawn = cases.flatMap((c) => c.kinds)
  for (const kind of KINDS.slice(0, 4)) expect(drawn.filter((k) => k === kind).length).toBeGreaterThan(2)
  const counts = [0, 1, 2].map((n) => cases.filter((c) => c.truth.length === n).length)
  expect([counts[1]! > counts[2]!, counts[2]! > 0, counts[0]! > 0]).toEqual([true, true, true])
})

test('every fault is material: a zone fails or a reading at the cabinet is not what it was', () => {
  const apart = (a: ReadingValue, b: ReadingValue) =>
    a.kind === 'ohm' && b.kind === 'ohm' ? Math.abs(a.ohm - b.ohm) > 0.25 : JSON.stringify(a) !== JSON.stringify(b)
  for (const c of cases.slice(0, 30))
    for (const fault of c.faults) {
      const [sound, ill] = [c.field([]), c.field([fault])]
      const tests = [
        ...Object.values(c.site.stations).map((s) => waterTest(s.terminal)),
        ...sweepTests(c.site),
        {
          kind: 'ohms',
          from: { kind: 'terminal', controller: A, terminal: 'C' },
          to: { kind: 'earth', place: 'A' },
        } as never,
      ]
      if (fault.kind === 'joint-loose') continue // it comes and goes
      expect([c.seed, fault.kind, tests.some((t) => apart(sound.answer(t, METER), ill.answer(t, METER)))]).toEqual([
        c.seed,
        fault.kind,
        true,
      ])
    }
})

test('the properties are such as the record takes: nothing is wrong with them as sites', () => {
  for (const c of cases.slice(0, 10)) {
    expect(siteSchema.safeParse(c.site).success).toBe(true)
    expect(brokenInvariants(c.site)).toEqual([])
  }
})
