import { chance } from '../../standins'
import { calibration, type Believed } from './calibration'

/** Beliefs that are as true as `truth` says of what was believed. */
const drawn = (count: number, truth: (p: number) => number): Believed[] => {
  const random = chance(4)
  return Array.from({ length: count }, (_, i) => {
    const p = random()
    return { p, there: random() < truth(p), of: i }
  })
}

test('beliefs that come true as often as they say are within; those that overstate or understate are not', () => {
  expect(calibration(drawn(20_000, (p) => p)).every((d) => d.within)).toBe(true)
  const bold = calibration(drawn(20_000, (p) => 0.5 + 0.7 * (p - 0.5)))
  expect([bold[9]!.within, bold[9]!.said > bold[9]!.high || bold[9]!.true < bold[9]!.low, bold[0]!.within]).toEqual([
    false,
    true,
    false,
  ])
  expect(calibration(drawn(20_000, (p) => p ** 2)).filter((d) => !d.within).length).toBeGreaterThan(4)
})

test('tenths hold every belief once, and an empty one says nothing against', () => {
  const list = drawn(999, (p) => p)
  const deciles = calibration([...list, { p: 1, there: true, of: -1 }, { p: 0, there: false, of: -2 }])
  expect(deciles.reduce((s, d) => s + d.count, 0)).toBe(1001)
  for (const d of deciles) expect(d.said >= d.from && d.said <= d.from + 0.1 + 1e-9).toBe(true)
  expect(calibration([]).map((d) => [d.count, d.within])).toEqual(Array.from({ length: 10 }, () => [0, true]))
})

test('a hunt that says the same ten times is one draw: what ten times the draws would refuse is then within', () => {
  const random = chance(9)
  // Eighty hunts a tenth, each believed truly, told ten times over.
  const hunts = Array.from({ length: 800 }, (_, of) => {
    const p = random()
    return { p, there: random() < p, of }
  })
  const told = hunts.flatMap((h) => Array.from({ length: 10 }, () => h))
  const deciles = calibration(told)
  expect(deciles.every((d) => d.withinByHunt)).toBe(true)
  expect(deciles.filter((d) => d.within).length).toBeLessThan(10)
  expect(
    calibration(told.map((b) => ({ ...b, there: b.p > 0.5 }))).filter((d) => !d.withinByHunt).length,
  ).toBeGreaterThan(5)
})
