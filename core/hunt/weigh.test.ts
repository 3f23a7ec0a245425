import type { DeviceId } from '../site'
import { logSum, normalBelow } from './normal'
import { coilPriorFrom } from './weigh'

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
