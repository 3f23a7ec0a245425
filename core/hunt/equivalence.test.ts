import { randomSite, seeded } from '../../tests/random-site'
import { COMMON_METER } from '../record'
import type { ControllerId } from '../site'
import { predictorOf, type Prediction } from './predict'
import { huntContextOf } from './context'
import { candidatesOf } from './tests'
import { catalogueOf, type Catalogue } from './catalogue'

const A = 'A' as ControllerId
const figures = (seen: Prediction | null): number[] =>
  seen === null
    ? []
    : seen.kind === 'either'
      ? [seen.p, ...figures(seen.well), ...figures(seen.ill)]
      : Object.values(seen)
          .flat(2)
          .filter((x): x is number => typeof x === 'number')

test('what is said to show alike does, worked out by itself: in series in one chain', () => {
  const compared = new Map<string, number>()
  for (let seed = 1; seed <= 10; seed++) {
    const context = huntContextOf(randomSite(seed, { loops: seed % 2 === 0 }).site, A)!
    const catalogue = catalogueOf(context)
    const predictor = predictorOf(context, catalogue, COMMON_METER)
    const random = seeded(seed)
    const tests = candidatesOf(context, { tester: true, tracer: false, meter: true }).map((c) => c.test)
    for (let n = 0; n < 2000; n++) {
      const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
      const [test, fault] = [one(tests), one(catalogue.faults)]
      const v = one(fault.variants)
      const { cause } = fault
      if (predictor.like(test, v) === v || cause === 'touch' || !predictor.mayAffect(test, fault)) continue
      // A catalogue of this cell alone has no other to stand for it; an intermittent joint has its open twin there.
      const lone: Catalogue = {
        ...catalogue,
        faults: catalogue.faults.map((f) => ({ ...f, variants: f.index === v.fault ? [v] : [] })),
      }
      const [seen, alone] = [predictor.under(test, [v]), predictorOf(context, lone, COMMON_METER).under(test, [v])]
      expect([test.kind, cause, alone?.kind]).toEqual([test.kind, cause, seen?.kind])
      expect(figures(alone)).toEqual(figures(seen).map((x) => expect.closeTo(x, 5)))
      compared.set(cause, (compared.get(cause) ?? 0) + 1)
    }
  }
  for (const cause of ['open', 'series', 'intermittent'])
    expect([cause, (compared.get(cause) ?? 0) > 20]).toEqual([cause, true])
})
