import { byGrid } from '../../tests/by-grid'
import { seeded } from '../../tests/random-site'
import type { DeviceId } from '../site'
import { logSum, normalBelow } from './normal'
import { coilPriorFrom, weighTogether, type Weighed } from './weigh'

test('the normal’s tails against known values, to seven digits', () => {
  for (const [x, p] of [
    [0, 0.5],
    [1, 0.8413447460685429],
    [-1, 0.15865525393145707],
    [-3, 0.0013498980316300933],
    [-6, 9.865876450376946e-10],
    [2.5758293035489004, 0.995],
  ] as const)
    expect(normalBelow(x) / p).toBeCloseTo(1, 6)
  expect(normalBelow(-30)).toBeGreaterThan(0)
  expect(logSum([-1000, -1000])).toBeCloseTo(-1000 + Math.LN2, 12)
  expect([logSum([]), logSum([-Infinity, 3])]).toEqual([-Infinity, 3])
})

test('readings that share coils and a severity: as adding up a fine grid of both', () => {
  const random = seeded(17)
  for (let n = 0; n < 12; n++) {
    const devices = ['V1', 'V2'] as DeviceId[]
    const figure = n % 2
    const readings = Array.from({ length: 3 }, (_, i): Weighed => {
      const of = i === 0 ? [devices[0]!] : i === 1 ? [devices[1]!] : devices
      const mean = 30 * of.length
      return {
        ohm: mean + 4 * (random() - 0.5),
        offset: 0,
        seen: {
          kind: 'ohms',
          mean,
          noise: 0.8 + random(),
          ratio: 0,
          coils: of.map((d) => [d, 25 + 10 * random()] as const),
          figures: figure ? [3 * random()] : [],
        },
      }
    })
    expect(weighTogether(readings, () => ({ mean: 0, sd: 0.04 }))).toBeCloseTo(byGrid(readings, 0.04), 2)
  }
})

test('an earlier good reading narrows its coil to what the meter can tell, and says which way it lies', () => {
  const seen = {
    kind: 'ohms' as const,
    mean: 36,
    noise: 0.3,
    ratio: 0,
    coils: [['V1' as DeviceId, 33] as const],
    figures: [],
  }
  const prior = coilPriorFrom(seen, 'V1' as DeviceId, 37.5, 0.08)
  expect(prior.mean * 33).toBeCloseTo(1.5, 0)
  expect(prior.sd * 33).toBeLessThan(0.4)
  expect(coilPriorFrom(seen, 'V2' as DeviceId, 37.5, 0.08)).toMatchObject({ mean: 0 })
})
