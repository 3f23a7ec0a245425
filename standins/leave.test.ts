import { judge, sceneOf, stateOf } from '../core/expect'
import { huntOf, leaveCommands, leftOn, reportOf, type Observation } from '../core/hunt'
import { COMMON_METER, type FieldTest, type OhmsTest, type OhmsValue } from '../core/record'
import {
  applyBatch,
  entries,
  terminalEnd,
  type ControllerId,
  type DeviceId,
  type End,
  type PlaceId,
  type Site,
} from '../core/site'
import { faultsOf, twoBoxes } from '../tests/two-boxes'
import { chance, fieldOf } from '.'

const A = 'A' as ControllerId
const at = (t: string) => terminalEnd(A, t) as Extract<End, { kind: 'terminal' }>
const earth: End = { kind: 'earth', place: 'A' as PlaceId }
const TERMINALS = ['1', '2', '3', '4', '5', 'MV']
const READ: OhmsTest[] = TERMINALS.flatMap((t): OhmsTest[] => [
  { kind: 'ohms', from: at(t), to: at('C') },
  { kind: 'ohms', from: at(t), to: earth },
])

const TODAY = '2026-05-04'
/** What a hunt of today believes after these readings. */
function after(site: Site, values: readonly OhmsValue[], more: readonly Observation[] = []) {
  const hunt = huntOf(site, A, { meter: COMMON_METER, left: leftOn(site, TODAY) })!
  READ.forEach((test, i) => hunt.take({ test, value: values[i]! }))
  more.forEach((answer) => hunt.take(answer))
  return reportOf(hunt)
}
/** What is done by hand, eye and tone about a fault as it is written. */
function byHand(site: Site, written: string): FieldTest[] {
  const [kind, at_] = written.split(' ') as [string, string]
  const [device, port] = at_.split('.') as [DeviceId, string]
  if (kind === 'coil-open') return [{ kind: 'energise', device }]
  if (!kind.startsWith('joint')) return TERMINALS.map((t) => ({ kind: 'tone', at: at(t) }))
  const holds = (e: End) => e.kind === 'port' && e.device === device && e.port === port
  const [splice] = entries(site.splices).find(([, s]) => s.ends.some(holds))!
  return [
    { kind: 'look', splice },
    { kind: 'remake', splice },
  ]
}

test.each([
  'open K/c3@A',
  'joint-open V3.a',
  'joint-series V5.a 25',
  'coil-open V1',
  'leak K/c2@A 4000',
  'touch K/c1/c2@A 0',
])('%s is left as it is: from then on readings, looks and tones are as they should be', (written) => {
  const site = twoBoxes()
  const field = fieldOf(site, faultsOf(site, [written]), { random: chance(3), noise: chance(8), ground_C: 20 })
  const values = READ.map((test) => field.answer(test, COMMON_METER) as OhmsValue)
  const seen = byHand(site, written).map((test) => ({ test, value: field.answer(test, COMMON_METER) }))
  const found = after(site, values, seen)
  const { where, likeliest } = found.troubles[0]!.parts[0]!
  const left = applyBatch(site, leaveCommands(site, where, likeliest!, 'd1', TODAY)!)
  if (!left.ok) throw new Error(JSON.stringify(left.refusals))
  expect([site, left.value.site].map((of) => leftOn(of, TODAY))).toEqual([0, 1])
  const now = after(left.value.site, values, seen)
  const scene = sceneOf(left.value.site)
  const odd = READ.flatMap((test, i) => {
    const { verdict } = judge(scene, test, values[i]!, COMMON_METER)
    return stateOf(verdict.code) === 'fits' || (verdict.code === 'open' && verdict.onRecord)
      ? []
      : [[test.from, verdict]]
  })
  expect(odd).toEqual([])
  expect([found.nothing < 0.05, now.nothing > 0.7]).toEqual([true, true])
})
