import { area_mm2 } from '../quantity'
import { seeded } from '../../tests/random-site'
import { fewestByTrying } from '../../tests/plain-joints'
import { carried, limitsOf, planJoint } from '.'
import { emptySite } from '../site'

const settings = emptySite('Joints').settings
const crimp = limitsOf(settings, 'gel_crimp_3')!
const nut = limitsOf(settings, 'nut_and_gel_tube')!
const of = (...areas: number[]) => areas.map((a, i) => ({ key: String(i), area_mm2: a }))
const [AWG18, AWG14] = [area_mm2({ awg: 18 }), area_mm2({ awg: 14 })]

test('n conductors in three-port crimps take n − 2 crimps and n − 3 jumpers', () => {
  for (let n = 3; n <= 12; n++) {
    const plan = planJoint(of(...Array.from({ length: n }, () => AWG18)), [crimp], [AWG18])!
    expect([n, plan.made.length, plan.jumpers]).toEqual([n, n - 2, n - 3])
    for (const m of plan.made) expect(m.holds.length + m.jumpers.length).toBeLessThanOrEqual(3)
    expect(plan.made.flatMap((m) => m.holds).sort()).toEqual(Array.from({ length: n }, (_, i) => String(i)).sort())
  }
})

test('two conductors never share a port, thick ones never enter a small crimp, and a size that nothing takes gives no plan', () => {
  expect(planJoint(of(AWG14, AWG18), [crimp], [AWG18])).toBeNull()
  expect(planJoint(of(AWG14, AWG14, AWG18), [crimp, nut], [AWG18, AWG14])!.made.map((m) => m.connector.kind)).toEqual([
    'nut_and_gel_tube',
  ])
  expect(carried(settings).map((c) => c.kind)).toEqual(['gel_crimp_3', 'nut_and_gel_tube'])
})

test('the fewest connectors, against trying every split, tree and kind; the jumpers link them to one', () => {
  const random = seeded(41)
  const kinds = [
    crimp,
    nut,
    { ...nut, most: 3, together_mm2: 5 },
    { ...nut, kind: 'gel_nut' as const, least: 2, most: 4, together_mm2: 6 },
  ]
  let several = 0
  for (let n = 0; n < 150; n++) {
    const conductors = of(
      ...Array.from(
        { length: 2 + Math.floor(random() * 4) },
        () => [AWG18, AWG18, 1, 1.5, AWG14][Math.floor(random() * 5)]!,
      ),
    )
    const connectors = kinds.filter(() => random() < 0.5)
    const jumpers = [...new Set(conductors.map((c) => c.area_mm2))]
    const plan = planJoint(conductors, connectors, jumpers)
    expect([n, plan?.made.length ?? null]).toEqual([n, fewestByTrying(conductors, connectors, jumpers, 4)])
    if (!plan) continue
    const reached = new Set([0])
    for (let i = 0; i < plan.made.length; i++)
      plan.made.forEach((m, j) => {
        if (m.jumpers.some((k) => [...reached].some((r) => plan.made[r]!.jumpers.includes(k)))) reached.add(j)
      })
    expect([n, reached.size, plan.jumpers]).toEqual([n, plan.made.length, plan.made.length - 1])
    several += plan.made.length > 1 ? 1 : 0
  }
  expect(several).toBeGreaterThan(20)
})
