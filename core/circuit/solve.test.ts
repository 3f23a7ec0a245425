import fc from 'fast-check'
import { LEAST_ohm, solverOf, withFaults, type Element, type Network } from './index'

const network = (nodeCount: number, pairs: readonly (readonly [number, number, number])[]): Network => ({
  nodeCount,
  elements: pairs.map(([a, b, ohm]): Element => ({ a, b, ohm, link: null })),
  nodeOf: new Map(),
  wiring: { links: [], shunts: [], pointOf: () => '', placeOf: new Map() },
})

/** The plain way: dense Gaussian elimination with partial pivoting on the reduced conductance matrix. */
function dense_ohm({ nodeCount, elements }: Network, from: number, to: number): number {
  const g = Array.from({ length: nodeCount }, () => new Array<number>(nodeCount + 1).fill(0))
  for (const { a, b, ohm } of elements) {
    if (a === b) continue
    g[a]![a]! += 1 / ohm
    g[b]![b]! += 1 / ohm
    g[a]![b]! -= 1 / ohm
    g[b]![a]! -= 1 / ohm
  }
  g[from]![nodeCount] = 1
  for (let n = 0; n < nodeCount; n++)
    if (n === to) {
      g[n]!.fill(0)
      g[n]![n] = 1
    }
  for (let k = 0; k < nodeCount; k++) {
    const pivot = [...g.keys()]
      .slice(k)
      .reduce((best, r) => (Math.abs(g[r]![k]!) > Math.abs(g[best]![k]!) ? r : best), k)
    const [p, q] = [g[pivot]!, g[k]!]
    g[k] = p
    g[pivot] = q
    for (let r = k + 1; r < nodeCount; r++) {
      const f = g[r]![k]! / g[k]![k]!
      if (f !== 0) for (let c = k; c <= nodeCount; c++) g[r]![c]! -= f * g[k]![c]!
    }
  }
  const v = new Array<number>(nodeCount).fill(0)
  for (let k = nodeCount - 1; k >= 0; k--)
    v[k] = (g[k]![nodeCount]! - g[k]!.slice(k + 1, nodeCount).reduce((s, x, i) => s + x * v[k + 1 + i]!, 0)) / g[k]![k]!
  return v[from]!
}

/** A tree that holds every node, and some more ways round; ohms over four decades. */
const connected = fc.integer({ min: 2, max: 14 }).chain((n) => {
  const ohm = fc.double({ min: -2, max: 2, noNaN: true }).map((x) => 10 ** x)
  const tree = fc.tuple(
    ...Array.from({ length: n - 1 }, (_, i) => fc.tuple(fc.integer({ min: 0, max: i }), fc.constant(i + 1), ohm)),
  )
  const more = fc.array(fc.tuple(fc.integer({ min: 0, max: n - 1 }), fc.integer({ min: 0, max: n - 1 }), ohm), {
    maxLength: 8,
  })
  return fc
    .tuple(tree, more, fc.integer({ min: 0, max: n - 1 }), fc.integer({ min: 0, max: n - 1 }))
    .map(([t, m, from, to]) => ({ net: network(n, [...t, ...m]), from, to }))
})

test('agrees with dense elimination on random meshes, both ways round, and its terms sum to the whole', () => {
  fc.assert(
    fc.property(connected, ({ net, from, to }) => {
      const solver = solverOf(net)
      const ohm = solver.resistance_ohm(from, to)
      if (from === to) return expect(ohm).toBe(0)
      const reference = dense_ohm(net, from, to)
      expect(Math.abs(ohm - reference)).toBeLessThan(1e-8 * reference)
      expect(Math.abs(solver.resistance_ohm(to, from) - ohm)).toBeLessThan(1e-10 * ohm)
      const volts = solver.potentials(from, to)
      const power = net.elements.reduce((sum, e) => sum + (volts[e.a]! - volts[e.b]!) ** 2 / e.ohm, 0)
      return expect(Math.abs(power - ohm)).toBeLessThan(1e-9 * ohm)
    }),
    { seed: 3, numRuns: 400 },
  )
})

test('parts that are not joined are told by structure, and answer infinity', () => {
  const net = network(5, [
    [0, 1, 3],
    [2, 3, 5],
  ])
  const solver = solverOf(net)
  expect(solver.resistance_ohm(0, 1)).toBeCloseTo(3, 12)
  expect([solver.resistance_ohm(0, 2), solver.resistance_ohm(0, 4)]).toEqual([Infinity, Infinity])
  expect(solver.resistance_ohm(2, 3)).toBeCloseTo(5, 12)
})

test('faults are edits: open, series, bridge and a short part of the way', () => {
  const net = network(4, [
    [0, 1, 10],
    [1, 2, 20],
    [2, 3, 10],
  ])
  const with_ = (...faults: Parameters<typeof withFaults>[1]) => solverOf(withFaults(net, faults)).resistance_ohm(0, 3)
  expect(with_()).toBeCloseTo(40, 9)
  expect(with_({ kind: 'open', elements: [1] })).toBe(Infinity)
  expect(with_({ kind: 'series', element: 1, ohm: 2.5 })).toBeCloseTo(42.5, 9)
  expect(with_({ kind: 'series', element: 1, ohm: -8 })).toBeCloseTo(32, 9)
  expect(with_({ kind: 'bridge', a: 1, b: 2, ohm: 20 })).toBeCloseTo(30, 9)
  expect(with_({ kind: 'cross', first: 0, firstAlong: 0.3, second: 2, secondAlong: 0.7, ohm: 0 })).toBeCloseTo(3 + 3, 4)
  expect(net.elements).toHaveLength(3)
})

test('parts of no resistance do not cost the digits of a meter', () => {
  const chain = network(
    101,
    Array.from({ length: 100 }, (_, i) => [i, i + 1, i === 50 ? 33 : LEAST_ohm] as const),
  )
  expect(solverOf(chain).resistance_ohm(0, 100)).toBeCloseTo(33, 3)
})
