import { seeded } from '../../../tests/random-site'
import type { DeviceId } from '../../site'
import { weighTogether, type Weighed } from '../weigh'
import { fitOf } from './likelihood'

const COIL = { mean: 0.01, sd: 0.035 }
const SUPPLY = { read: null, nominal: 27 }
type Ohms = Weighed['seen']
const ohms = (mean: number, coils: Ohms['coils'], figures: Ohms['figures'] = []): Ohms => ({
  kind: 'ohms',
  mean,
  noise: 0.2,
  ratio: 0.005,
  coils,
  figures,
})

test('figures that share coils and a severity are one normal, as integrating these out says; what fits may not have slipped', () => {
  const random = seeded(3)
  const [V1, V2] = ['V1', 'V2'] as DeviceId[] as [DeviceId, DeviceId]
  for (let n = 0; n < 20; n++) {
    const severity = 2 * random()
    const seen = [
      ohms(35, [[V1, 33]], [severity]),
      ohms(
        70,
        [
          [V1, 33],
          [V2, 33],
        ],
        [severity],
      ),
      ohms(36, [[V2, 33]], [0]),
    ]
    const shown = seen.map((s) => s.mean + random() - 0.5)
    const slots = [0]
    const ours = fitOf(
      seen.map((s, i) => ({ value: { kind: 'ohm', ohm: shown[i]! }, seen: s, slots })),
      SUPPLY,
      () => COIL,
    ).log
    const integrated = weighTogether(
      seen.map((s, i) => ({ ohm: shown[i]!, seen: s, offset: 0 })),
      () => COIL,
    )
    expect(ours).toBeCloseTo(integrated, 3)
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
