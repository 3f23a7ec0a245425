import { randomSite } from '../../tests/random-site'
import { COMMON_METER, type FieldTest } from '../record'
import type { ControllerId } from '../site'
import type { Prediction } from './predict'
import { predictorOf } from './predict'
import { huntContextOf } from './context'
import { memoizePredictions } from './memoize'
import { catalogueOf, type Catalogue, type Fault, type Faults } from './catalogue'

const A = 'A' as ControllerId
const context = huntContextOf(randomSite(4, { loops: false }).site, A)!
const catalogue: Catalogue = catalogueOf(context)
const test1: FieldTest = { kind: 'supply', controller: A }
const same: FieldTest = { kind: 'supply', controller: A }

/** A predictor that counts how often it is worked out. */
function counting(touches: (fault: Fault) => boolean) {
  const asked: Faults[] = []
  const predictor = memoizePredictions(catalogue, {
    foresee: (_, faults): Prediction => {
      asked.push(faults)
      return { kind: 'yes', p: 0.5 }
    },
    mayAffect: (_, f) => touches(f),
    dominates: () => false,
    compose: () => null,
    likeIn: () => null,
  })
  return { asked, predictor }
}

test('an answer is worked out once for equal tests, and a fault that cannot show costs nothing', () => {
  const [shows, hides] = [
    catalogue.faults.find((f) => f.cause === 'coil_open')!,
    catalogue.faults.find((f) => f.cause === 'coil_short')!,
  ]
  const { asked, predictor } = counting((f) => f === shows)
  const [v, w] = [shows.variants[0]!, hides.variants[0]!]
  for (const t of [test1, same, test1]) {
    predictor.base(t)
    predictor.under(t, [v])
    predictor.under(t, [v, w])
    predictor.under(t, [w])
  }
  expect(asked).toEqual([[], [v]])
  expect(predictor.under(test1, [w])).toBe(predictor.base(same))
})

test('where leads are under other screws, what else is wrong counts in every reading that they show in', () => {
  const [pair, coil] = [
    catalogue.faults.find((f) => f.cause === 'swapped')!,
    catalogue.faults.find((f) => f.cause === 'coil_open')!,
  ]
  expect([pair.links, coil.links]).toEqual([true, false])
  const { asked, predictor } = counting((f) => f === pair)
  const both = [pair.variants[0]!, coil.variants[0]!]
  predictor.under(test1, both)
  expect(asked).toEqual([[], both])
  expect([predictor.activeFaults(test1, both), predictor.activeFaults(test1, [coil.variants[0]!])]).toEqual([both, []])
})

test('under power the places where conductors touch are one: as many answers as sizes', () => {
  const predictor = predictorOf(context, catalogue, COMMON_METER)
  const touch = catalogue.faults.find((f) => f.cause === 'touch')!
  const t = context.terminals.find((x) =>
    predictor.mayAffect({ kind: 'water', at: { kind: 'terminal', controller: A, terminal: x } }, touch),
  )!
  const water: FieldTest = { kind: 'water', at: { kind: 'terminal', controller: A, terminal: t } }
  const sizes = new Set(touch.variants.map((v) => v.ohm))
  expect(new Set(touch.variants.map((v) => predictor.like(water, v))).size).toBe(sizes.size)
  for (const v of touch.variants)
    expect([predictor.like(water, v).ohm, predictor.under(water, [v])]).toEqual([
      v.ohm,
      predictor.under(water, [predictor.like(water, v)]),
    ])
  const ohms: FieldTest = {
    kind: 'ohms',
    from: { kind: 'terminal', controller: A, terminal: t },
    to: { kind: 'terminal', controller: A, terminal: context.common },
  }
  expect(touch.variants.every((v) => predictor.like(ohms, v) === v)).toBe(true)
})
