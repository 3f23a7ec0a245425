import { quarryLake } from '../../demo/quarry-lake'
import { applyBatch, looseCommand, type Command } from './index'

const demo = quarryLake()
const set = (
  collection: 'cables' | 'controllers' | 'stations' | 'places' | 'underlays',
  id: string,
  field: string,
  value: unknown,
): Command => looseCommand({ do: 'set', in: collection, id, field, value })
const told = (...commands: Command[]): string[] => {
  const applied = applyBatch(demo, commands)
  return applied.ok ? [] : applied.refusals.map((r) => `${r.code} ${r.path.join('/')}`)
}
const main = (demo.cables as unknown as Record<string, { cores: Record<string, object> }>).K1!
const core = (name: string, more: object) => ({ ...main.cores, [name]: { ...main.cores[name], ...more } })

test('bends belong to a stop that another follows, colours to a stop of the cable, a jumper to one box', () => {
  expect(told(set('cables', 'K1', 'bends', { B3: [{ x_m: 1, y_m: 1 }] }))).toEqual([])
  expect(told(set('cables', 'K1', 'bends', { B7: [{ x_m: 1, y_m: 1 }] }))).toEqual([
    'no_stretch_here cables/K1/bends/B7',
  ])
  expect(told(set('cables', 'K1', 'cores', core('red', { colourAt: { B9: 'black' } })))).toEqual([
    'no_such_stop cables/K1/cores/red/colourAt/B9',
  ])
  expect(told(set('cables', 'L18', 'kind', 'jumper'))).toEqual(['jumper_leaves_box cables/L18/stops'])
})

test('figures out of their range are refused at their field, and nothing is half written', () => {
  expect(told(set('places', 'B1', 'position', { value: { x_m: 1e9, y_m: 0 }, how: 'seen' }))).toEqual([
    'too_big places/B1/position/value/x_m',
  ])
  expect(told(set('cables', 'K1', 'marks', [{ kind: 'sleeve', from_m: 30, to_m: 20 }]))[0]).toMatch(
    /^bad_value cables\/K1\/marks\/0/,
  )
  expect(told(set('controllers', 'A', 'bays', [{ tag: '1', module: { kind: 'stations', stations: 0 } }]))[0]).toMatch(
    /^too_small controllers\/A\/bays\/0\/module/,
  )
  expect(told(set('controllers', 'A', 'commonHolds', 3))).toEqual(['too_big controllers/A/commonHolds'])
  expect(
    told({
      do: 'create',
      in: 'underlays',
      id: 'p',
      record: { name: 'Plan', sha256: 'abc', width_px: 10, height_px: 10 },
    })[0],
  ).toMatch(/sha256/)
  expect(
    told({
      do: 'setSetting',
      field: 'wiring',
      value: {
        connectors: [{ kind: 'gel_crimp_3', least: 4, most: 3, thinnest_mm2: 0.5, thickest_mm2: 1, together_mm2: 3 }],
      },
    })[0],
  ).toMatch(/^bad_value settings\/wiring\/connectors\/0/)
})
