import { COMMON_METER } from '../record'
import { randomSite } from '../../tests/random-site'
import type { ControllerId } from '../site'
import { predictorOf } from './predict'
import { huntContextOf } from './context'
import { materialOnly } from './material'
import { FAMILIES } from './odds'
import { catalogueOf, type Fault } from './catalogue'

const A = 'A' as ControllerId
const context = huntContextOf(randomSite(7, { loops: false }).site, A)!
const every = catalogueOf(context)
const predictor = predictorOf(context, every, COMMON_METER)
const material = (sd: number) => materialOnly(context, every, predictor, () => ({ mean: 0, sd }))

test('what nobody would notice loses its odds to what everybody would within its family; every family keeps its own', () => {
  const { faults } = material(0.035)
  const times = (f: Fault) => f.prior / every.faults[f.index]!.prior
  for (const family of FAMILIES) {
    const own = faults.filter((f) => f.family === family)
    const sum = (list: readonly Fault[]) => list.filter((f) => f.family === family).reduce((s, f) => s + f.prior, 0)
    expect(sum(faults)).toBeCloseTo(sum(every.faults), 9)
    const most = Math.max(...own.map(times))
    for (const f of own) {
      expect(f.variants.reduce((s, v) => s + v.share, 0)).toBeCloseTo(1, 3)
      if (['coil_open', 'open', 'swapped', 'leak', 'stuck_shut'].includes(f.cause))
        expect(times(f)).toBeCloseTo(most, 9)
    }
  }
  // A corroded joint of three ohms hides behind the coil's tolerance; one of a kilohm does not.
  const series = faults.filter((f) => f.cause === 'series' && f.family === 'splice')
  expect(series.length).toBeGreaterThan(2)
  for (const f of series) {
    expect(f.variants[0]!.share).toBeLessThanOrEqual(f.variants.at(-1)!.share)
    expect(f.variants.at(-1)!.share).toBeGreaterThan(0.99 / f.variants.length)
  }
  expect(
    series.filter(
      (f) =>
        f.variants[0]!.share < 0.02 &&
        times(f) <
          0.95 *
            Math.max(...series.map(times), times(faults.find((o) => o.cause === 'open' && o.family === 'splice')!)),
    ).length,
  ).toBeGreaterThan(series.length / 4)
})

test('the better a coil is known the less can hide: last year’s reading brings back what tolerance covered', () => {
  const [vague, known] = [material(0.035), material(0.004)]
  const kept = (c: ReturnType<typeof material>) =>
    c.faults.filter((f) => ['series', 'coil_part'].includes(f.cause)).reduce((s, f) => s + f.prior, 0)
  expect(kept(known)).toBeGreaterThan(1.01 * kept(vague))
})
