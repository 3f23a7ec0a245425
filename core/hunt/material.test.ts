import { COMMON_METER } from '../record'
import { randomSite } from '../../tests/random-site'
import type { ControllerId } from '../site'
import { foresightOf } from './foresee'
import { groundOf } from './ground'
import { materialOnly } from './material'
import { QUIET, USUAL_ODDS } from './odds'
import { catalogueOf } from './variants'

const A = 'A' as ControllerId
const ground = groundOf(randomSite(7, { loops: false }).site, A)!
const every = catalogueOf(ground, USUAL_ODDS, QUIET, null)
const foresight = foresightOf(ground, every, COMMON_METER)
const material = (sd: number) => materialOnly(ground, every, foresight, () => ({ mean: 0, sd }))

test('what nobody would notice loses its odds, what everybody would keeps them, and no odds are made', () => {
  const { faults } = material(0.035)
  every.faults.forEach((f, i) => {
    expect(faults[i]!.prior).toBeLessThanOrEqual(f.prior + 1e-12)
    expect(faults[i]!.variants.reduce((s, v) => s + v.share, 0)).toBeCloseTo(1, 3)
    if (['coil_open', 'open', 'swapped', 'leak', 'stuck_shut'].includes(f.cause)) expect(faults[i]!.prior).toBe(f.prior)
  })
  // A corroded joint of three ohms hides behind the coil's tolerance; one of a kilohm does not.
  const series = faults.filter((f) => f.cause === 'series' && f.family === 'splice')
  expect(series.length).toBeGreaterThan(2)
  for (const f of series) {
    expect(f.variants[0]!.share).toBeLessThanOrEqual(f.variants.at(-1)!.share)
    expect(f.variants.at(-1)!.share).toBeGreaterThan(0.99 / f.variants.length)
  }
  expect(series.filter((f) => f.variants[0]!.share < 0.02 && f.prior < 0.95 * every.faults[f.index]!.prior).length).toBeGreaterThan(series.length / 4)
})

test('the better a coil is known the less can hide: last year’s reading brings back what tolerance covered', () => {
  const [vague, known] = [material(0.035), material(0.004)]
  const kept = (c: ReturnType<typeof material>) => c.faults.filter((f) => ['series', 'coil_part'].includes(f.cause)).reduce((s, f) => s + f.prior, 0)
  expect(kept(known)).toBeGreaterThan(1.02 * kept(vague))
  vague.faults.forEach((f, i) => expect(known.faults[i]!.prior).toBeGreaterThan(0.999 * f.prior))
})
