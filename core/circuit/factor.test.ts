import fc from 'fast-check'
import { complex, inverse, minus, plus, scaled, size, solveDense, times, type Complex } from './complex'
import { factorOf, type Admittance, type Factor } from './factor'

interface Net {
  readonly n: number
  readonly elements: readonly Admittance[]
}

/**
 * A connected network of complex admittances with real parts above zero, over six decades, with meshes and parallel
 * elements.
 */
const connected = fc.integer({ min: 2, max: 16 }).chain((n) => {
  const y = fc
    .tuple(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -1.2, max: 1.2, noNaN: true }))
    .map(([decade, turn]): Complex => ({ re: 10 ** decade, im: 10 ** decade * Math.tan(turn) }))
  const tree = fc.tuple(
    ...Array.from({ length: n - 1 }, (_, i) => fc.tuple(fc.integer({ min: 0, max: i }), fc.constant(i + 1), y)),
  )
  const more = fc.array(fc.tuple(fc.integer({ min: 0, max: n - 1 }), fc.integer({ min: 0, max: n - 1 }), y), {
    maxLength: 14,
  })
  return fc
    .tuple(tree, more)
    .map(([t, m]): Net => ({ n, elements: [...t, ...m].map(([a, b, value]) => ({ a, b, y: value })) }))
})

/** Volts of every node for unit current into one and out of another, node 0 at 0 V, by one dense matrix. */
function dense({ n, elements }: Net, into: number, outOf: number): Complex[] {
  const rows = Array.from({ length: n }, () => Array.from({ length: n }, () => complex(0)))
  const right = Array.from({ length: n }, () => complex(0))
  for (const { a, b, y } of elements) {
    if (a === b) continue
    rows[a]![a] = plus(rows[a]![a]!, y)
    rows[b]![b] = plus(rows[b]![b]!, y)
    rows[a]![b] = minus(rows[a]![b]!, y)
    rows[b]![a] = minus(rows[b]![a]!, y)
  }
  right[into] = plus(right[into]!, complex(1))
  right[outOf] = minus(right[outOf]!, complex(1))
  rows[0] = rows[0]!.map((_, k) => complex(k === 0 ? 1 : 0))
  right[0] = complex(0)
  return solveDense(rows, right)
}

function volts(factor: Factor, parts: Parameters<Factor['back']>[0]): Complex[] {
  const [re, im] = [new Float64Array(factor.nodeCount), new Float64Array(factor.nodeCount)]
  factor.back(parts, re, im)
  return Array.from({ length: factor.nodeCount }, (_, node) =>
    complex(re[factor.slotOf[node]!]!, im[factor.slotOf[node]!]!),
  )
}

test('volts of random meshes are those of one dense matrix, and products of two currents are reciprocal', () => {
  fc.assert(
    fc.property(connected, fc.nat(15), fc.nat(15), fc.nat(15), (net, p, q, r) => {
      const [into, outOf, other] = [p % net.n, q % net.n, r % net.n]
      const factor = factorOf(net.n, net.elements, [0])
      expect([...factor.slotOf].sort((a, b) => a - b)).toEqual(Array.from({ length: net.n }, (_, i) => i))
      const f = factor.forward(into, outOf)
      const ours = volts(factor, [{ f, times: complex(1) }])
      const plain = dense(net, into, outOf)
      const largest = Math.max(1e-6, ...plain.map(size))
      for (let node = 0; node < net.n; node++)
        expect(size(minus(ours[node]!, plain[node]!))).toBeLessThan(1e-9 * largest)
      const g = factor.forward(other, -1)
      expect(size(minus(factor.transferImpedance(f, g), factor.transferImpedance(g, f)))).toBeLessThan(
        1e-12 * Math.max(1, size(factor.transferImpedance(f, g))),
      )
      expect(size(minus(factor.transferImpedance(f, g), ours[other]!))).toBeLessThan(1e-9 * largest)
    }),
    { seed: 8, numRuns: 300 },
  )
})

test('sums of currents give sums of volts, whatever was solved before; a node against itself gives none', () => {
  fc.assert(
    fc.property(connected, fc.nat(15), fc.nat(15), fc.double({ min: -5, max: 5, noNaN: true }), (net, p, q, by) => {
      const factor = factorOf(net.n, net.elements, [0])
      const [one, two] = [factor.forward(p % net.n, -1), factor.forward(q % net.n, -1)]
      const [x, y] = [complex(by, 1), complex(-2, by)]
      const both = volts(factor, [
        { f: one, times: x },
        { f: two, times: y },
      ])
      const [first, second] = [
        volts(factor, [{ f: one, times: complex(1) }]),
        volts(factor, [{ f: two, times: complex(1) }]),
      ]
      for (let node = 0; node < net.n; node++) {
        const sum = plus(times(x, first[node]!), times(y, second[node]!))
        expect(size(minus(both[node]!, sum))).toBeLessThan(
          1e-9 * Math.max(1e-6, size(first[node]!) + size(second[node]!)) * 10,
        )
      }
      expect(
        volts(factor, [{ f: factor.forward(p % net.n, p % net.n), times: complex(1) }]).every((v) => size(v) === 0),
      ).toBe(true)
    }),
    { seed: 9, numRuns: 150 },
  )
})

test('arithmetic of complex figures: inverse, product, and a dense system put back', () => {
  const figure = fc
    .tuple(fc.double({ min: -100, max: 100, noNaN: true }), fc.double({ min: -100, max: 100, noNaN: true }))
    .map(([re, im]) => complex(re, im))
  fc.assert(
    fc.property(
      figure.filter((z) => size(z) > 1e-3),
      figure,
      (z, w) => {
        expect(size(minus(times(z, inverse(z)), complex(1)))).toBeLessThan(1e-12)
        expect(size(times(z, w))).toBeCloseTo(size(z) * size(w), 6)
        expect(size(minus(plus(z, scaled(z, -1)), complex(0)))).toBe(0)
      },
    ),
    { seed: 4, numRuns: 200 },
  )
  fc.assert(
    fc.property(
      fc
        .integer({ min: 1, max: 6 })
        .chain((n) =>
          fc.tuple(
            fc.array(fc.array(figure, { minLength: n, maxLength: n }), { minLength: n, maxLength: n }),
            fc.array(figure, { minLength: n, maxLength: n }),
          ),
        ),
      ([rows, x]) => {
        // A diagonal that outweighs its row keeps the system well posed.
        const matrix = rows.map((row, i) => row.map((z, k) => (i === k ? plus(z, complex(1000)) : z)))
        const right = matrix.map((row) => row.reduce((sum, z, k) => plus(sum, times(z, x[k]!)), complex(0)))
        const solved = solveDense(
          matrix.map((row) => [...row]),
          [...right],
        )
        solved.forEach((z, k) => expect(size(minus(z, x[k]!))).toBeLessThan(1e-8 * Math.max(1, size(x[k]!))))
      },
    ),
    { seed: 6, numRuns: 100 },
  )
  expect(() => solveDense([[complex(0)]], [complex(1)])).toThrow('column 0 of 1 is empty')
})

test('with the order of an earlier factor kept, other figures on the same nodes solve as they would by themselves', () => {
  fc.assert(
    fc.property(connected, fc.nat(15), fc.nat(15), fc.double({ min: 0.1, max: 10, noNaN: true }), (net, p, q, by) => {
      const [into, outOf] = [p % net.n, q % net.n]
      const first = factorOf(net.n, net.elements, [0])
      expect([...first.order].sort((a, b) => a - b)).toEqual(Array.from({ length: net.n - 1 }, (_, n) => n + 1))
      const changed = {
        n: net.n,
        elements: net.elements.map((e, i) => (i % 2 === 0 ? { ...e, y: scaled(e.y, by) } : e)),
      }
      const again = factorOf(net.n, changed.elements, [0], first.order)
      const f = again.forward(into, outOf)
      const reference = dense(changed, into, outOf)
      const expected = minus(reference[into]!, reference[outOf]!)
      expect(size(minus(again.transferImpedance(f, f), expected))).toBeLessThan(1e-6 * (size(expected) + 1e-9))
    }),
    { numRuns: 150 },
  )
})
