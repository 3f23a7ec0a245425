import { join } from 'node:path'
import { SHIPPED } from '../core/procedure'
import { OUTPUTS } from './output'
import { thread } from '../tests/shell'

const ROOT = join(__dirname, '..')
const DEMO = join(ROOT, 'demo/quarry-lake.json')

test('procedures: all of them are rendered on the demo, in whole sentences that speak of its things', async () => {
  const { procedures } = OUTPUTS.procedures.parse(JSON.parse((await thread('procedures', DEMO, '--json')).out))
  expect(procedures.map((p) => p.id)).toEqual(SHIPPED.map((p) => p.id))
  for (const { id, title, on } of procedures) {
    expect(on).toHaveLength(1)
    expect([id, on[0]!.steps.length > 0, title]).toEqual([id, true, expect.not.stringContaining('procedureTitle')])
    for (const step of on[0]!.steps)
      for (const sentence of [
        step.says,
        step.why ?? 'None.',
        ...step.cautions.map((c) => c.says),
        ...(step.options ?? []),
      ]) {
        expect(sentence).toMatch(/^[A-Z]/)
        expect(sentence).not.toMatch(/[{}]|undefined|null|NaN|procedure[A-Z]|hazard\.| {2}|\b(\w+) \1\b/)
      }
  }
  const [coil] = OUTPUTS.procedures
    .parse(JSON.parse((await thread('procedures', DEMO, '--on', 'V5', '--json')).out))
    .procedures.filter((p) => p.id === 'coil_change')
  const proved = coil!.on[0]!.steps.find((s) => s.key === 'proved')!
  expect(coil!.on[0]!.thing).toBe('Coil of Dome walk, left in B3')
  expect(proved).toMatchObject({ hold: true, asks: 'measure', cautions: [{ hazard: 'tester' }] })
  expect(proved.expected!.low_ohm!).toBeLessThan(33)
  const unknown = await thread('procedures', DEMO, '--on', 'Z9')
  expect([unknown.status, unknown.err]).toEqual([
    2,
    expect.stringContaining('nothing on this property has the tag “Z9”'),
  ])
})
