import { COMMON_METER, type FieldTest } from '../../record'
import { leakSizesFor, UNSEEN_LEAKS, type LeakSizes } from './leaks'

const earth = { kind: 'ohms', from: 'x', to: { kind: 'earth', place: 'A' } } as unknown as FieldTest
const between = { kind: 'ohms', from: 'x', to: { kind: 'terminal' } } as unknown as FieldTest
const read = (ohm: number, test = earth) => ({ test, value: { kind: 'ohm', ohm } as const })
const sizesFor = (ohms: readonly number[], meter = COMMON_METER, before = UNSEEN_LEAKS) =>
  leakSizesFor(
    ohms.map((o) => read(o)),
    meter,
    before,
  )
const widest = (sizes: LeakSizes, ohm: number) =>
  Math.max(...sizes.filter(({ from, to }) => from <= ohm && ohm <= to).map(({ from, to }) => Math.log(to / from)))

test.each([[[15_700]], [[501, 540]], [[99_500]], [[101]], [[300, 40_000]]])(
  'sizes of leaks follow each other from the least to the most, as fine as the meter where %p was read',
  (ohms) => {
    for (const meter of [COMMON_METER, { ...COMMON_METER, accuracy_ratio: 0 }]) {
      const sizes = sizesFor(ohms, meter)
      expect([sizes[0]!.from, sizes.at(-1)!.to]).toEqual([expect.closeTo(100, 6), expect.closeTo(100_000, 3)])
      sizes.slice(1).forEach(({ from }, i) => expect(from).toBeCloseTo(sizes[i]!.to, 6))
      expect(sizes.length).toBeLessThan(600)
      for (const ohm of ohms) expect(widest(sizes, ohm)).toBeLessThan(Math.max(0.0051, meter.accuracy_ratio))
      // The same again, and what lies beside it, asks for no other sizes.
      expect(sizesFor(ohms, meter, sizes)).toBe(sizes)
      expect(sizesFor([...ohms, ohms[0]! * 1.01], meter, sizes)).toBe(sizes)
    }
  },
)

test('nothing but ohms to earth that a leak could have cuts sizes up', () => {
  expect(leakSizesFor([read(500, between)], COMMON_METER, UNSEEN_LEAKS)).toBe(UNSEEN_LEAKS)
  expect(sizesFor([4.2e6, 12])).toBe(UNSEEN_LEAKS)
})
