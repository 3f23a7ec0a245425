import { quarryLake } from '../../demo/quarry-lake'
import { climateOf } from '../circuit'
import { COMMON_METER, type FieldTest } from '../record'
import { terminalEnd, type ControllerId } from '../site'
import { catalogueOf } from './catalogue'
import { huntContextOf } from './context'
import { predictorOf } from './predict'
import { asTaken, takenKey } from './taken'

const A = 'A' as ControllerId
const site = quarryLake()
const context = huntContextOf(site, A, climateOf(site))!
const failing = new Set(['wet'] as const)
const test3 = { kind: 'ohms', from: terminalEnd(A, '3'), to: terminalEnd(A, 'C') } as FieldTest

test('a fault that comes and goes with a state shows fully in it, not at all in another, every other time where none is said', () => {
  const every = catalogueOf(context, { inStates: true })
  const predictor = predictorOf(context, every, COMMON_METER)
  const dry = asTaken({ test: test3, state: 'dry' }, failing)
  const [wet, unsaid] = [asTaken({ test: test3, state: 'wet' }, failing), asTaken({ test: test3 }, failing)]
  expect(wet).toBe(test3)
  expect(new Set([wet, dry, unsaid].map(takenKey)).size).toBe(3)
  const base = predictor.base(test3)
  let compared = 0
  for (const fault of every.faults) {
    if (!fault.withState || fault.cause !== 'series' || !predictor.mayAffect(test3, fault)) continue
    const always = every.faults.find(
      (f) => !f.withState && f.key === fault.key && f.at === fault.at && f.cause === 'series',
    )!
    const [comes, stays] = [fault.variants[9]!, always.variants[9]!]
    const full = predictor.under(test3, [stays])
    expect(predictor.under(wet, [comes])).toEqual(full)
    expect(predictor.under(dry, [comes])).toEqual(base)
    expect(predictor.under(dry, [stays])).toEqual(full)
    expect(predictor.under(unsaid, [comes])).toEqual({ kind: 'either', p: 0.5, well: base, ill: full })
    compared++
  }
  expect(compared).toBeGreaterThan(3)
  // What is seen at the joint itself does not wait for the state.
  const joint = every.faults.find((f) => f.withState && f.where.kind === 'joint' && f.cause === 'open')!
  const look = { kind: 'look', splice: (joint.where as { splice: string }).splice } as FieldTest
  const inDry = predictor.under(asTaken({ test: look, state: 'dry' }, failing), [joint.variants[0]!])
  expect(inDry).toEqual(predictor.under(look, [joint.variants[0]!]))
  expect(inDry).not.toEqual(predictor.base(look))
  // The odds of a fault are shared out between what stays and what comes and goes, and all still add up to one.
  const plain = catalogueOf(context)
  const sumOf = (faults: typeof every.faults, key: string) =>
    faults.reduce((s, f) => (f.key === key ? s + f.prior : s), 0)
  for (const key of plain.keys.slice(0, 40)) expect(sumOf(every.faults, key)).toBeCloseTo(sumOf(plain.faults, key), 12)
  expect(every.faults.reduce((s, f) => s + f.prior, 0)).toBeCloseTo(1, 12)
})
