import { poweredCase } from '../tests/random-powered'
import { denseSolver, joined, type Branch } from './dense'

test('the plain solver and the circuit engine share nothing and agree: random properties with terminals on and parts open or resistive', () => {
  let [worst, volts] = [0, 0]
  for (let seed = 1; seed <= 60; seed++) {
    const { engine, edits } = poweredCase(seed)
    const { powered } = engine
    const plainEdits = edits.filter((e) => e.kind === 'close' || e.kind === 'open' || e.kind === 'series')
    const solution = engine.solve(plainEdits)
    const gone = new Set(plainEdits.flatMap((e) => (e.kind === 'open' ? [e.element] : [])))
    const more = new Map(plainEdits.flatMap((e) => (e.kind === 'series' ? [[e.element, e.ohm] as const] : [])))
    const branches: Branch[] = [
      ...powered.parts.flatMap((p, i) =>
        gone.has(i) ? [] : [{ a: p.a, b: p.b, z: { re: p.z.re + (more.get(i) ?? 0), im: p.z.im } }],
      ),
      ...plainEdits.flatMap((e) => (e.kind === 'close' ? [{ a: e.node, b: e.hot, z: { re: 1e-6, im: 0 } }] : [])),
    ]
    const solve = denseSolver(powered.nodeCount, branches)
    const at = solve(
      powered.sources.map((s) => ({ into: s.hot, outOf: s.common, amps: { re: s.open_V / s.source_ohm, im: 0 } })),
    )
    const { common } = powered.sources[0]!
    for (let node = 0; node < powered.nodeCount; node++) {
      if (solution.floating(node)) continue
      const ours = solution.volts(node)
      worst = Math.max(
        worst,
        Math.hypot(at[node]!.re - at[common]!.re - ours.re, at[node]!.im - at[common]!.im - ours.im),
      )
      volts++
    }
    // Asked again for nothing it says nothing: the taken-apart matrix is not used up.
    expect(Math.max(...solve([]).map((v) => Math.hypot(v.re, v.im)))).toBe(0)
  }
  expect(volts).toBeGreaterThan(1500)
  expect(worst).toBeLessThan(1e-3)
})

test('two resistors, by hand; a branch without ohms joins; a part joined to nothing stays at rest', () => {
  const volts = denseSolver(5, [
    { a: 0, b: 1, z: { re: 30, im: 40 } },
    { a: 1, b: 2, z: { re: 0, im: 0 } },
    { a: 3, b: 4, z: { re: 5, im: 0 } },
  ])([{ into: 0, outOf: 2, amps: { re: 2, im: 0 } }])
  const across = (a: number, b: number) => [volts[a]!.re - volts[b]!.re, volts[a]!.im - volts[b]!.im]
  expect(across(0, 2)).toEqual([expect.closeTo(60, 2), expect.closeTo(80, 2)])
  expect(across(1, 2)).toEqual([expect.closeTo(2e-4, 6), expect.closeTo(0, 6)])
  expect([
    joined(3, [{ a: 0, b: 1, z: { re: 1, im: 0 } }], 0, 1),
    joined(3, [{ a: 0, b: 1, z: { re: 1, im: 0 } }], 0, 2),
  ]).toEqual([true, false])
  expect([volts[3], volts[4]]).toEqual([
    { re: 0, im: 0 },
    { re: 0, im: 0 },
  ])
})
