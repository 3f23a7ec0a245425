import type { Site } from '../site'
import { poweredCase } from '../../tests/random-powered'
import { randomSite, seeded } from '../../tests/random-site'
import {
  climateOf,
  engineOf,
  influenceOf,
  networkOf,
  partsOf,
  poweredOf,
  solverOf,
  withFaults,
  type Change,
  type Conditions,
  type Edit,
  type Fault,
} from './index'
import { complex, inverse, minus, plus, size, times } from './complex'

/** A property with its power off, as a meter finds it, unless said otherwise. */
const poweredSite = (site: Site, conditions: Partial<Conditions> = {}) =>
  poweredOf(site, {
    climate: climateOf(site),
    frequency_Hz: 0,
    phase: 'optimistic',
    mains_ratio: 1,
    wire: 'nominal',
    faces: new Map(),
    turns: new Map(),
    ...conditions,
  })

test('volts of random properties, one to three elements changed or taken out: as the engine says, at every pair of points', () => {
  let [worst, none, readings] = [0, 0, 0]
  for (let seed = 1; seed <= 150; seed++) {
    const { site, engine, edits } = poweredCase(seed)
    // Terminals that are on are part of the network here, as they are in a state that is asked again and again.
    const live = edits.flatMap((e) => (e.kind === 'close' ? [e] : []))
    const powered = poweredOf(site, {
      ...engine.powered.conditions,
      live: Object.entries(site.controllers).flatMap(([controller, c]) =>
        Object.keys(c!.terminals).flatMap((terminal) =>
          live.some(
            (e) =>
              engine.powered.nodeOf.get(
                engine.powered.wiring.pointOf({ kind: 'terminal', controller, terminal } as never),
              ) === e.node,
          )
            ? [{ controller, terminal } as never]
            : [],
        ),
      ),
    })
    const random = seeded(seed + 5000)
    const plain = engineOf(powered)
    const elements = powered.parts.flatMap((p, i) =>
      p.of.kind === 'stretch' || p.of.kind === 'leg' || p.of.kind === 'coil' ? [i] : [],
    )
    const tests = Array.from({ length: 12 }, () => ({
      a: Math.floor(random() * powered.nodeCount),
      b: Math.floor(random() * powered.nodeCount),
    }))
    const influence = influenceOf(powered, tests)
    for (let n = 0; n < 12; n++) {
      const chosen = [
        ...new Set(
          Array.from({ length: 1 + Math.floor(random() * 3) }, () => elements[Math.floor(random() * elements.length)]!),
        ),
      ]
      const changes = chosen.map((element): Change => ({
        element,
        z: random() < 0.5 ? null : plus(powered.parts[element]!.z, complex(10 ** (random() * 4 - 1))),
      }))
      const solution = plain.solve(
        changes.map((c): Edit =>
          c.z === null ? { kind: 'open', element: c.element } : { kind: 'element', element: c.element, z: c.z },
        ),
      )
      tests.forEach(({ a, b }, t) => {
        if (solution.floating(a) || solution.floating(b)) {
          none++
          return
        }
        const off = size(minus(influence.volts(t, changes), minus(solution.volts(a), solution.volts(b))))
        if (off > 1e-7)
          throw new Error(
            `seed ${seed}, ${JSON.stringify(changes)}: ${powered.names[a]} to ${powered.names[b]} off by ${off}`,
          )
        worst = Math.max(worst, off)
        readings++
      })
    }
  }
  expect([readings > 8_000, none > 500]).toEqual([true, true])
  expect(worst).toBeLessThan(1e-7)
})

test('ohms of random properties: as the meter’s own solver says with the faults in it, open where nothing joins', () => {
  let [opens, worst] = [0, 0]
  for (let seed = 1; seed <= 120; seed++) {
    const { site } = randomSite(seed)
    const network = networkOf(site, climateOf(site))
    const powered = poweredSite(site, { phase: 'safe' })
    const random = seeded(seed + 900)
    const points = [...network.nodeOf.keys()].filter((p) => powered.nodeOf.has(p))
    const tests = Array.from(
      { length: 10 },
      () => [points[Math.floor(random() * points.length)]!, points[Math.floor(random() * points.length)]!] as const,
    )
    const elements = powered.parts.flatMap((p, i) => ('id' in p.of ? [i] : []))
    const influence = influenceOf(
      powered,
      tests.map(([a, b]) => ({ a: powered.nodeOf.get(a)!, b: powered.nodeOf.get(b)! })),
    )
    for (let n = 0; n < 10; n++) {
      const chosen = [...new Set([0, 1].map(() => elements[Math.floor(random() * elements.length)]!))]
      const ohm = 10 ** (random() * 4 - 1)
      const cut = random() < 0.5
      const changes = chosen.map((element): Change => ({
        element,
        z: cut ? null : plus(powered.parts[element]!.z, complex(ohm)),
      }))
      const faults = chosen.map((element): Fault => {
        const { id } = powered.parts[element]!.of as { id: string }
        const at = network.elements.findIndex((e) => e.link?.id === id)
        return cut ? { kind: 'open', elements: [at] } : { kind: 'series', element: at, ohm }
      })
      const solver = solverOf(withFaults(network, faults))
      tests.forEach(([a, b], t) => {
        const [p, q] = [network.nodeOf.get(a)!, network.nodeOf.get(b)!]
        const reading = influence.ohms(t, changes)
        expect([seed, n, t, reading.open]).toEqual([seed, n, t, !solver.connected(p, q)])
        if (reading.open) {
          opens++
          return
        }
        const plain = solver.potentials(p, q)[p]!
        worst = Math.max(worst, Math.abs(reading.value.re - plain) / Math.max(1, plain))
      })
    }
  }
  expect(opens).toBeGreaterThan(1000)
  expect(worst).toBeLessThan(1e-8)
})

test('conductors that touch part of the way along, alone and with a part taken out: as the engine says', () => {
  let [worst, readings] = [0, 0]
  for (let seed = 1; seed <= 80; seed++) {
    const { site } = randomSite(seed)
    const powered = poweredSite(site, { frequency_Hz: 60, live: [{ controller: 'A', terminal: '1' } as never] })
    const random = seeded(seed + 300)
    // A piece that hangs on nothing is another part of the network: what touches it touches nothing.
    const part = partsOf(powered.nodeCount, powered.parts)
    const stretches = powered.parts.flatMap((p, i) =>
      p.of.kind === 'stretch' && part[p.a] === part[powered.sources[0]!.common] ? [i] : [],
    )
    const pick = () => stretches[Math.floor(random() * stretches.length)]!
    const plain = engineOf(powered)
    const influence = influenceOf(powered)
    for (let n = 0; n < 6; n++) {
      const [first, second, third] = [pick(), pick(), pick()]
      if (new Set([first, second, third]).size < 3) continue
      const [firstAlong, secondAlong, ohm] = [random(), random(), 10 ** (random() * 4 - 2)]
      const cut = random() < 0.5
      const changes: Change[] = cut ? [{ element: third, z: null }] : []
      const solution = plain.solve([
        { kind: 'touch', first, firstAlong, second, secondAlong, ohm },
        ...(cut ? [{ kind: 'open', element: third } as const] : []),
      ])
      for (let k = 0; k < 12; k++) {
        const [a, b] = [Math.floor(random() * powered.nodeCount), Math.floor(random() * powered.nodeCount)]
        if (solution.floating(a) || solution.floating(b) || part[a] !== part[b]) continue
        const ours = influence.volts(influence.test({ a, b }), changes, [
          { p: { element: first, along: firstAlong }, q: { element: second, along: secondAlong }, ohm },
        ])
        worst = Math.max(worst, size(minus(ours, minus(solution.volts(a), solution.volts(b)))))
        readings++
      }
    }
  }
  expect(readings).toBeGreaterThan(2_000)
  expect(worst).toBeLessThan(1e-6)
})

test('two elements of one loop taken out, in either order, and a change that is none', () => {
  const { site } = randomSite(3)
  const powered = poweredSite(site, { frequency_Hz: 60 })
  const elements = powered.parts.map((_, i) => i).filter((i) => powered.parts[i]!.a !== powered.parts[i]!.b)
  const tests = elements.slice(0, 40).map((e) => ({ a: powered.parts[e]!.a, b: powered.parts[e]!.b }))
  const influence = influenceOf(powered, tests)
  for (let t = 0; t < tests.length; t++) {
    const [first, second] = [elements[t]!, elements[(t * 7 + 3) % elements.length]!]
    const [there, back] = [
      influence.ohms(t, [
        { element: first, z: null },
        { element: second, z: null },
      ]),
      influence.ohms(t, [
        { element: second, z: null },
        { element: first, z: null },
      ]),
    ]
    expect(there.open).toBe(back.open)
    if (!there.open && !back.open)
      expect(size(minus(there.value, back.value))).toBeLessThan(1e-6 * (1 + size(there.value)))
    const same = influence.ohms(t, [{ element: first, z: powered.parts[first]!.z }])
    // Across an element itself: never more than its own impedance when it is whole.
    expect(same.open ? NaN : size(same.value)).toBeLessThanOrEqual(size(powered.parts[first]!.z) * (1 + 1e-9) + 1e-12)
    expect(size(times(inverse(powered.parts[first]!.z), powered.parts[first]!.z))).toBeCloseTo(1, 12)
  }
})

test('whether current still passes once parts are out and conductors touch: as following the wires one by one', () => {
  const [asked, open] = [{ n: 0 }, { n: 0 }]
  for (let seed = 1; seed <= 60; seed++) {
    const { site } = randomSite(seed, { loops: seed % 2 === 0 })
    const powered = poweredSite(site)
    const random = seeded(seed + 900)
    const influence = influenceOf(powered)
    const any = () => Math.floor(random() * powered.parts.length)
    const part = partsOf(powered.nodeCount, powered.parts)
    for (let n = 0; n < 30; n++) {
      const gone = [...new Set([any(), any(), any()])]
      // Both spots of a touch lie in one part of the network, in elements that stay.
      const spots = [any(), any()].filter((e) => !gone.includes(e) && powered.parts[e]!.of.kind === 'stretch')
      const joins =
        spots.length === 2 &&
        spots[0] !== spots[1] &&
        part[powered.parts[spots[0]!]!.a] === part[powered.parts[spots[1]!]!.a]
          ? [{ p: { element: spots[0]!, along: random() }, q: { element: spots[1]!, along: random() }, ohm: 1 }]
          : []
      const [a, b] = [Math.floor(random() * powered.nodeCount), Math.floor(random() * powered.nodeCount)]
      const around: number[][] = Array.from({ length: powered.nodeCount }, () => [])
      const link = (p: number, q: number) => {
        around[p]!.push(q)
        around[q]!.push(p)
      }
      powered.parts.forEach((p, e) => {
        if (!gone.includes(e)) link(p.a, p.b)
      })
      for (const { p, q } of joins) link(powered.parts[p.element]!.a, powered.parts[q.element]!.a)
      const reached = new Set([a])
      const queue = [a]
      while (queue.length > 0)
        for (const next of around[queue.pop()!]!)
          if (!reached.has(next)) {
            reached.add(next)
            queue.push(next)
          }
      const reading = influence.ohms(
        influence.test({ a, b }),
        gone.map((element) => ({ element, z: null })),
        joins,
      )
      expect([seed, n, reading.open]).toEqual([seed, n, !reached.has(b)])
      asked.n++
      if (reading.open) open.n++
    }
  }
  expect([asked.n > 1500, open.n > 300, open.n < asked.n - 300]).toEqual([true, true, true])
})

test('how a reading follows an element or what touches: as nudging it says', () => {
  let [worst, followed] = [0, 0]
  const NUDGE = 1e-5
  for (let seed = 1; seed <= 40; seed++) {
    const { site } = randomSite(seed)
    const powered = poweredSite(site)
    const random = seeded(seed + 70)
    const part = partsOf(powered.nodeCount, powered.parts)
    const among = powered.parts.flatMap((p, i) => (p.of.kind === 'coil' || p.of.kind === 'stretch' ? [i] : []))
    const pick = () => among[Math.floor(random() * among.length)]!
    const influence = influenceOf(powered)
    for (let n = 0; n < 12; n++) {
      const [changed, first, second, other] = [pick(), pick(), pick(), pick()]
      if (new Set([changed, first, second, other]).size < 4) continue
      const apart = [changed, first, second].some((e) => part[powered.parts[e]!.a] !== part[powered.parts[other]!.a])
      if (apart) continue
      const { a } = powered.parts[pick()]!
      const { b } = powered.parts[other]!
      if (part[a] !== part[b] || a === b) continue
      const z = plus(powered.parts[changed]!.z, complex(4))
      const join = { p: { element: first, along: 0.3 }, q: { element: second, along: 0.6 }, ohm: 2 }
      const test = influence.test({ a, b })
      const read = (more: readonly Change[], ohm: number): number => {
        const r = influence.ohms(test, [{ element: changed, z }, ...more], [{ ...join, ohm }])
        return r.open ? NaN : r.value.re
      }
      const flow = influence.flow(test, [{ element: changed, z }], [join])!
      const own = powered.parts[other]!.z
      const sound = read([], 2)
      expect(flow.value.re).toBeCloseTo(sound, 9)
      const nudged = (read([{ element: other, z: plus(own, complex(NUDGE)) }], 2) - sound) / NUDGE
      const joined = (read([], 2 + NUDGE) - sound) / NUDGE
      worst = Math.max(worst, Math.abs(flow.ofElement(other).re - nudged), Math.abs(flow.ofJoin(0).re - joined))
      if (nudged > 0.01 && joined > 0.01) followed++
    }
  }
  expect(followed).toBeGreaterThan(5)
  expect(worst).toBeLessThan(1e-4)
})
