import { poweredCase } from '../../tests/random-powered'
import { climateOf, closings, conditionsFor, engineOf, LEAST_ohm, poweredOf, runningOf, type Edit } from '../circuit'
import { Draft } from '../site'
import { writeDeck } from './deck'

const names = (deck: string) => new Set([...deck.matchAll(/^[RLVK]\w* (\S+) (\S+) /gm)].flatMap((m) => [m[1]!, m[2]!]))

test('the deck has the solver’s nodes by name, leaves out what floats and says so, and every node hangs on node 0', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const {
      engine: { powered, solve },
      edits,
      title,
    } = poweredCase(seed)
    const deck = writeDeck(powered, edits, title)
    const solution = solve(edits)
    const used = names(deck)
    powered.names.forEach((name, node) => {
      const out = deck.includes(`* left out, no way to a source: ${name}\n`)
      expect([seed, name, out]).toEqual([seed, name, solution.floating(node)])
      if (out) expect([seed, name, used.has(name)]).toEqual([seed, name, false])
    })
    expect(new Set(powered.names).size).toBe(powered.nodeCount)
    expect(powered.names.every((n) => /^[a-z0-9_]+$/.test(n))).toBe(true)
    expect(deck.split('\n').at(-2)).toBe('.end')
  }
})

test('elements are written as they are: a coil as winding and inductance, turns shorted as a coupled pair, direct current by its resistance', () => {
  const site = new Draft('one')
    .place('A', 'cabinet')
    .place('B')
    .coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
    .controller('A', 'A', 1, { transformer: { rating_VA: 30 } })
    .cable('K', {
      gauge: { awg: 18 },
      stops: [
        ['A', 0],
        ['B', 100],
      ],
      cores: ['white', 'red'],
    })
    .valve('V', 'B', 'k')
    .station('A:1', 'One', ['V'])
    .join('A', ['A:1', 'K.red>'])
    .join('A', ['A:C', 'K.white>'])
    .join('B', ['K.red<', 'V.a'])
    .join('B', ['K.white<', 'V.b'])
    .site()
  const running = runningOf(site, [{ controller: 'A', terminal: '1' } as never])
  if (!running.ok) throw new Error('refused')
  const powered = (frequency_Hz: 0 | 60) =>
    poweredOf(
      site,
      conditionsFor(running.value, {
        climate: climateOf(site),
        frequency_Hz,
        phase: 'optimistic',
        mains_ratio: 1,
        wire: 'nominal',
      }),
    )
  const ac = powered(60)
  const coil = ac.parts.findIndex((p) => p.of.kind === 'coil')
  const written = writeDeck(ac, closings(ac, running.value.live))
  expect(written).toMatch(/^V1 open_1 0 DC 27 AC 27$/m)
  expect(written).toMatch(/^RS1 open_1 hot_a 2\.4\d*$/m)
  const henry = Number(/^L\d+ m\d+ v_b (\S+)$/m.exec(written)![1])
  expect(henry * 2 * Math.PI * 60).toBeCloseTo(Math.sqrt(60 ** 2 - 33 ** 2), 9)
  const shorted = writeDeck(ac, [{ kind: 'coil_part', element: coil, fraction: 0.25 }])
  expect([...shorted.matchAll(/^(RT|LT|K)\d+ .*$/gm)].map((m) => m[1])).toEqual(['RT', 'LT', 'K'])
  expect(writeDeck(powered(0), [])).toContain('.op\n')
  expect(writeDeck(powered(0), [])).not.toMatch(/^L/m)
  const touch: Edit = { kind: 'touch', first: 0, firstAlong: 0.25, second: 1, secondAlong: 0.5, ohm: 0 }
  const parts = [...writeDeck(ac, [touch]).matchAll(/^R\d+ (\S+) (\S+) (\S+)$/gm)]
    .filter((m) => m[1]!.startsWith('touch') || m[2]!.startsWith('touch'))
    .map((m) => Number(m[3]))
  expect(parts.sort((a, b) => a - b)[0]).toBe(LEAST_ohm)
  expect(parts.reduce((sum, ohm) => sum + ohm, 0)).toBeCloseTo(2 * 100 * 0.0209478, 3)
})

test('two controllers that nothing joins each keep their own common; a leak to earth at both joins them', () => {
  const draft = new Draft('two').coilKind('k', 33, { inrush_A: 0.4, holding_A: 0.23 })
  for (const c of ['A', 'S']) {
    draft
      .place(c, 'cabinet')
      .place(`${c}B`)
      .controller(c, c, 1, { transformer: { rating_VA: 30 } })
      .cable(`K${c}`, {
        gauge: { awg: 18 },
        stops: [
          [c, 0],
          [`${c}B`, 80],
        ],
        cores: ['white', 'red'],
      })
      .valve(`V${c}`, `${c}B`, 'k')
      .station(`${c}:1`, c, [`V${c}`])
      .join(c, [`${c}:1`, `K${c}.red>`])
      .join(c, [`${c}:C`, `K${c}.white>`])
      .join(`${c}B`, [`K${c}.red<`, `V${c}.a`])
      .join(`${c}B`, [`K${c}.white<`, `V${c}.b`])
  }
  const site = draft.site()
  const running = runningOf(site, [{ controller: 'A', terminal: '1' } as never])
  if (!running.ok) throw new Error('refused')
  const powered = poweredOf(
    site,
    conditionsFor(running.value, {
      climate: climateOf(site),
      frequency_Hz: 60,
      phase: 'safe',
      mains_ratio: 1,
      wire: 'nominal',
    }),
    'A' as never,
  )
  const on = closings(powered, running.value.live)
  const node = (name: string) => powered.names.indexOf(name)
  expect(writeDeck(powered, on)).toContain('VT2 terminal_s_c 0 0')
  const leaks: Edit[] = [
    { kind: 'leak', node: node('va_a'), ohm: 500 },
    { kind: 'leak', node: node('vs_a'), ohm: 500 },
  ]
  expect(writeDeck(powered, [...on, ...leaks])).not.toContain('VT2')
  const joined = engineOf(powered).solve([...on, ...leaks])
  expect(joined.floating(powered.earth)).toBe(false)
  // Nothing comes back from the second controller, so no current flows between them: its common rides at the leak’s
  // own volts.
  const lifted = joined.volts(node('terminal_s_c'))
  expect(Math.hypot(lifted.re, lifted.im)).toBeCloseTo(
    Math.hypot(joined.volts(node('va_a')).re, joined.volts(node('va_a')).im),
    3,
  )
})
