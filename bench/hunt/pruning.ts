import { EVERYTHING, huntOf } from '../../core/hunt'
import type { FieldTest } from '../../core/record'
import { A, caseOf, METER, sweepTests, waterTest } from './draw'

/**
 * The least that the weighing of pairs holds of the belief of working every pair out, over some small properties
 * after their symptoms and after a few ohms: one less the most that any part's belief is off.
 */
export function pruningHeld(seed: number, cases: number): number {
  let worst = 0
  for (let n = 0; n < cases; n++) {
    const c = caseOf(seed * 800_011 + n, { stations: 3 + n })
    const field = c.field(c.faults)
    const [usual, outright] = [undefined, EVERYTHING].map((pruning) =>
      huntOf(c.site, A, { meter: METER, known: c.known, pruning })!,
    ) as [ReturnType<typeof huntOf> & object, ReturnType<typeof huntOf> & object]
    const take = (tests: readonly FieldTest[]) => {
      for (const test of tests) {
        const value = field.answer(test, METER)
        for (const hunt of [usual, outright]) hunt.take({ test, value })
      }
      const [held, whole] = [usual.beliefs(), outright.beliefs()]
      for (const [key, p] of [...whole.parts, ['nothing', whole.nothing] as const])
        worst = Math.max(worst, Math.abs((key === 'nothing' ? held.nothing : (held.parts.get(key) ?? 0)) - p))
    }
    take(Object.values(c.site.stations).map((s) => waterTest(s.terminal)))
    take(sweepTests(c.site).slice(0, 3))
  }
  return 1 - worst
}
