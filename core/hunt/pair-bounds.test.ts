import { cells, hiddenOf, UNITS } from '../../tests/made-cells'
import { seeded } from '../../tests/random-site'
import { logSum } from './normal'
import { apart, eachUnit, chosenCells, meetings, signaturesOf, USUAL_PRUNING, type Scored } from './pair-bounds'
import type { Catalogue, FaultHypothesis } from './variants'

test('every pair that meets and can reach far enough is met once, and none that shares nothing', () => {
  for (const seed of [1, 2, 3])
    for (const least of [-25, -15, -5]) {
      const { list, best } = cells(seed, 120)
      const signatures = signaturesOf(list, UNITS)
      const met = new Map<string, number>()
      meetings(signatures, best, least, (s, t, bound, hiding) => {
        const key = [s.variant.index, t.variant.index].sort((a, b) => a - b).join()
        expect(met.has(key)).toBe(false)
        met.set(key, bound)
        expect(s.units.some((u) => t.units.includes(u))).toBe(true)
        // If the one hides the other where they meet, that is no more than the bound.
        expect(hiding).toBeCloseTo(hiddenOf(s, t), 9)
        expect(hiding).toBeLessThanOrEqual(bound + 1e-9)
      })
      list.forEach((s, a) =>
        list.slice(a + 1).forEach((t) => {
          if (!s.units.some((u) => t.units.includes(u)) || hiddenOf(s, t) < least) return
          expect(met.has(`${a},${t.variant.index}`)).toBe(true)
        }),
      )
    }
})

test('units of either come in order, with the place of each in both lists', () => {
  const seen: number[][] = []
  eachUnit([1, 3, 9], [0, 3, 8], (...at) => seen.push(at))
  expect(seen).toEqual([
    [0, -1, 0],
    [1, 0, -1],
    [3, 1, 1],
    [8, -1, 2],
    [9, 2, -1],
  ])
})

test('signatures hold every cell once, under the units in which it shows, and are apart where they share none', () => {
  const { list } = cells(5, 90)
  const signatures = signaturesOf(list, UNITS)
  expect(signatures.flatMap((s) => s.of).length).toBe(90)
  for (const s of signatures) for (const c of s.of) expect(c.units).toEqual(s.units)
  for (const s of signatures)
    for (const t of signatures) expect(apart(s.mask, t.mask)).toBe(!s.units.some((u) => t.units.includes(u)))
  for (const s of signatures) expect(s.log).toBeCloseTo(logSum(s.of.map((c) => c.log)), 9)
})

test('some cells stand for the many of a fault, every size with the belief that it has', () => {
  const random = seeded(8)
  const variants = Array.from({ length: 64 }, (_, index) => ({ index, fault: 0, ohm: index % 8 }) as FaultHypothesis)
  const catalogue = { faults: [{ variants }], variants, keys: ['a'] } as unknown as Catalogue
  const log = Float64Array.from(variants, ({ ohm }) => -2 - 4 * random() - 5 * ohm!)
  const scored = (variant: FaultHypothesis): Scored => ({
    variant,
    units: [],
    gains: [],
    odds: log[variant.index]!,
    log: log[variant.index]!,
    reach: [],
    tied: false,
    standsFor: [variant],
    extra: 0,
  })
  const chosen = chosenCells(catalogue, log, scored, USUAL_PRUNING)
  expect(chosen.length).toBeLessThanOrEqual(USUAL_PRUNING.cells)
  // However unlikely a size is by itself, a second fault may speak for it.
  for (let size = 0; size < 8; size++)
    expect(logSum(chosen.filter((c) => c.variant.ohm === size).map((c) => c.log))).toBeCloseTo(
      logSum(variants.filter((v) => v.ohm === size).map((v) => log[v.index]!)),
      9,
    )
  // The best by themselves, with their own weight.
  const top = [...log].sort((a, b) => b - a).slice(0, USUAL_PRUNING.cells / 5)
  expect(chosen.slice(0, top.length).map((c) => c.log)).toEqual(top)
  expect(
    chosenCells(
      catalogue,
      log.map(() => -Infinity),
      scored,
      USUAL_PRUNING,
    ),
  ).toEqual([])
})
