import { byGrid } from '../../../tests/by-grid'
import { seeded } from '../../../tests/random-site'
import type { DeviceId } from '../../site'
import type { Prediction } from '../predict'
import { fitOf } from './likelihood'

const COIL = { mean: 0.01, sd: 0.035 }
const SUPPLY = { read: null, nominal: 27 }
type Ohms = Extract<Prediction, { kind: 'ohms' }>
const ohms = (mean: number, coils: Ohms['coils'], figures: Ohms['figures'] = []): Ohms => ({
  kind: 'ohms',
  mean,
  noise: 0.2,
  ratio: 0.005,
  coils,
  figures,
})

test('readings that share coils and a severity: as adding up a fine grid of both', () => {
  const random = seeded(17)
  for (let n = 0; n < 12; n++) {
    const devices = ['V1', 'V2'] as DeviceId[]
    const figure = n % 2
    const readings = Array.from({ length: 3 }, (_, i) => {
      const of = i === 0 ? [devices[0]!] : i === 1 ? [devices[1]!] : devices
      const mean = 30 * of.length
      return {
        ohm: mean + 4 * (random() - 0.5),
        seen: {
          kind: 'ohms' as const,
          mean,
          noise: 0.8 + random(),
          ratio: 0,
          coils: of.map((d) => [d, 25 + 10 * random()] as const),
          figures: figure ? [3 * random()] : [],
        },
      }
    })
    const { log, best } = fitOf(
      readings.map(({ ohm, seen }) => ({ value: { kind: 'ohm', ohm }, seen, slots: seen.figures.map((_, k) => k) })),
      SUPPLY,
      () => ({ mean: 0, sd: 0.04 }),
    )
    expect(log).toBeCloseTo(byGrid(readings, 0.04), 2)
    expect(best).toBeGreaterThanOrEqual(log)
  }
})

test('a figure far outside is a slip before it is anything else, and the others count as before', () => {
  const seen = [ohms(35, [['V1' as DeviceId, 33]]), ohms(34, [['V1' as DeviceId, 33]])]
  const of = (...shown: number[]) =>
    fitOf(
      shown.map((ohm, i) => ({ value: { kind: 'ohm', ohm }, seen: seen[i]!, slots: [] })),
      SUPPLY,
      () => COIL,
    ).log
  const [both, far, farther] = [of(35, 34), of(35, 340), of(35, 3400)]
  expect(both - far).toBeGreaterThan(8)
  // A slip by ten times as much is about ten times rarer per ohm, not beyond all measure.
  expect(far - farther).toBeGreaterThan(2)
  expect(far - farther).toBeLessThan(2.6)
  // Another reading of the same coil may still fit or not.
  expect(of(35, 340) - of(45, 340)).toBeGreaterThan(8)
})
