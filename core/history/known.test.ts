import { demoProperty, quarryLake } from '../../demo/quarry-lake'
import { climateOf } from '../circuit'
import { predict, sceneOf } from '../expect'
import { COMMON_METER, noFacts } from '../record'
import type { ControllerId } from '../site'
import { coilsAsRead, goodReadings, pastOf } from './index'

const A = 'A' as ControllerId
const site = quarryLake()
const sceneAt = (ground_C: number, coil_C: number | null) => sceneOf(site, climateOf(site, ground_C, coil_C))

test('good readings of earlier visits, at the temperature of now: what faults read is left out, and without any there are none', () => {
  const { facts } = demoProperty()
  const scene = sceneAt(20, null)
  const good = goodReadings(scene, sceneAt, A, COMMON_METER, pastOf(facts))
  expect(good.length).toBeGreaterThan(10)
  for (const { test, ohm } of good) {
    const expected = predict(scene, test, COMMON_METER)
    // Within what a coil may be off its sheet: a cut or a short is no baseline.
    if (expected.kind === 'ohms') expect(Math.abs(ohm / expected.expected_ohm - 1)).toBeLessThan(0.13)
  }
  const warm = goodReadings(sceneAt(35, null), sceneAt, A, COMMON_METER, pastOf(facts))
  good.forEach(({ ohm }, i) => expect(warm[i]!.ohm / ohm).toBeCloseTo(1 + 0.00393 * 15, 1))
  expect(goodReadings(scene, sceneAt, A, COMMON_METER, pastOf(noFacts()))).toEqual([])
})

test('coils so read, put back into the property, predict the readings they came from', () => {
  const { facts } = demoProperty()
  const scene = sceneAt(20, null)
  const good = goodReadings(scene, sceneAt, A, COMMON_METER, pastOf(facts))
  const coils = coilsAsRead(scene, good, COMMON_METER)
  expect(coils.size).toBeGreaterThanOrEqual(good.length)
  for (const { test, ohm } of good) {
    const expected = predict(scene, test, COMMON_METER)
    if (expected.kind !== 'ohms') continue
    const more = expected.terms.reduce(
      (sum, t) => (t.kind === 'coil' ? sum + t.ohm * (coils.get(t.device)! - 1) : sum),
      0,
    )
    expect(expected.expected_ohm + more).toBeCloseTo(ohm, 6)
  }
})
