import { randomSite } from '../../tests/random-site'
import { COMMON_METER, type FieldTest } from '../record'
import type { ControllerId } from '../site'
import type { Foreseen } from './foresee'
import { foresightOf } from './foresee'
import { groundOf } from './ground'
import { QUIET, USUAL_ODDS } from './odds'
import { recalling } from './recall'
import { catalogueOf, type Catalogue, type Fault, type Faults } from './variants'

const A = 'A' as ControllerId
const ground = groundOf(randomSite(4, { loops: false }).site, A)!
const catalogue: Catalogue = catalogueOf(ground, USUAL_ODDS, QUIET, null)
const test1: FieldTest = { kind: 'supply', controller: A }
const same: FieldTest = { kind: 'supply', controller: A }

/** A foresight that counts how often it is worked out. */
function counting(touches: (fault: Fault) => boolean) {
  const asked: Faults[] = []
  const foresight = recalling(catalogue, {
    foresee: (_, faults): Foreseen => {
      asked.push(faults)
      return { kind: 'yes', p: 0.5 }
    },
    touches: (_, f) => touches(f),
    settles: () => false,
    likeIn: () => null,
  })
  return { asked, foresight }
}

test('an answer is worked out once for equal tests, and a fault that cannot show costs nothing', () => {
  const [shows, hides] = [
    catalogue.faults.find((f) => f.cause === 'coil_open')!,
    catalogue.faults.find((f) => f.cause === 'coil_short')!,
  ]
  const { asked, foresight } = counting((f) => f === shows)
  const [v, w] = [shows.variants[0]!, hides.variants[0]!]
  for (const t of [test1, same, test1]) {
    foresight.base(t)
    foresight.under(t, [v])
    foresight.under(t, [v, w])
    foresight.under(t, [w])
  }
  expect(asked).toEqual([[], [v]])
  expect(foresight.under(test1, [w])).toBe(foresight.base(same))
})

test('where leads are under other screws, what else is wrong counts in every reading that they show in', () => {
  const [pair, coil] = [
    catalogue.faults.find((f) => f.cause === 'swapped')!,
    catalogue.faults.find((f) => f.cause === 'coil_open')!,
  ]
  expect([pair.links, coil.links]).toEqual([true, false])
  const { asked, foresight } = counting((f) => f === pair)
  const both = [pair.variants[0]!, coil.variants[0]!]
  foresight.under(test1, both)
  expect(asked).toEqual([[], both])
  expect([foresight.felt(test1, both), foresight.felt(test1, [coil.variants[0]!])]).toEqual([both, []])
})

test('under power the places where conductors touch are one: as many answers as sizes', () => {
  const foresight = foresightOf(ground, catalogue, COMMON_METER)
  const touch = catalogue.faults.find((f) => f.cause === 'touch')!
  const t = ground.terminals.find((x) =>
    foresight.touches({ kind: 'water', at: { kind: 'terminal', controller: A, terminal: x } }, touch),
  )!
  const water: FieldTest = { kind: 'water', at: { kind: 'terminal', controller: A, terminal: t } }
  const sizes = new Set(touch.variants.map((v) => v.ohm))
  expect(new Set(touch.variants.map((v) => foresight.like(water, v))).size).toBe(sizes.size)
  for (const v of touch.variants)
    expect([foresight.like(water, v).ohm, foresight.under(water, [v])]).toEqual([
      v.ohm,
      foresight.under(water, [foresight.like(water, v)]),
    ])
  const ohms: FieldTest = {
    kind: 'ohms',
    from: { kind: 'terminal', controller: A, terminal: t },
    to: { kind: 'terminal', controller: A, terminal: ground.common },
  }
  expect(touch.variants.every((v) => foresight.like(ohms, v) === v)).toBe(true)
})
