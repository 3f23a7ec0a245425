import { nextValves, nothingKnown, perhapsTurned, pulsesUntil, turned, watered, type SequencerBelief } from '.'

type Event =
  { kind: 'turned'; times: number } | { kind: 'perhaps'; odds: number[] } | { kind: 'watered'; valve: number | null }

const told = (belief: SequencerBelief, events: readonly Event[]) =>
  events.reduce(
    (b, e) =>
      e.kind === 'turned' ? turned(b, e.times) : e.kind === 'perhaps' ? perhapsTurned(b, e.odds) : watered(b, e.valve),
    belief,
  )
/** Every order and every first output walked through on its own, with every count that an event leaves open. */
function enumerated(valves: (number | null)[], events: readonly Event[]): Map<number | null, number> {
  const orders = (list: (number | null)[]): (number | null)[][] =>
    list.length === 0 ? [[]] : list.flatMap((v, i) => orders(list.filter((_, j) => j !== i)).map((o) => [v, ...o]))
  const next = new Map<number | null, number>()
  let whole = 0
  const walk = (order: (number | null)[], last: number, weight: number, left: readonly Event[]): void => {
    const [event, ...rest] = left
    if (!event) {
      const valve = order[(last + 1) % order.length]!
      next.set(valve, (next.get(valve) ?? 0) + weight)
      whole += weight
    } else if (event.kind === 'turned') walk(order, (last + event.times) % order.length, weight, rest)
    else if (event.kind === 'perhaps')
      event.odds.forEach((p, times) => walk(order, (last + times) % order.length, weight * p, rest))
    else if (order[last] === event.valve) walk(order, last, weight, rest)
  }
  for (const order of orders(valves)) order.forEach((_, last) => walk(order, last, 1, events))
  return new Map([...next].filter(([, p]) => p > 0).map(([v, p]) => [v, p / whole]))
}

test('odds are those of walking through every order and every count', () => {
  const cases: [(number | null)[], Event[]][] = [
    [[0, 1], []],
    [
      [0, 1],
      [
        { kind: 'watered', valve: 1 },
        { kind: 'perhaps', odds: [0.5, 0.3, 0.2] },
      ],
    ],
    [
      [0, 1, 2, null],
      [
        { kind: 'watered', valve: 2 },
        { kind: 'turned', times: 1 },
        { kind: 'watered', valve: null },
        { kind: 'perhaps', odds: [0.6, 0.4] },
        { kind: 'turned', times: 2 },
      ],
    ],
  ]
  for (const [valves, events] of cases) {
    const ours = nextValves(told(nothingKnown(valves, false), events))
    const theirs = enumerated(valves, events)
    expect([...ours.keys()].sort()).toEqual([...theirs.keys()].sort())
    for (const [valve, p] of theirs) expect(ours.get(valve)).toBeCloseTo(p, 12)
  }
})

test('one look settles a tried order, two that of two alike; pulses are counted to the valve wanted', () => {
  const tried = watered(nothingKnown([0, 1, 2, 3], true), 2)
  expect([...nextValves(tried)]).toEqual([[3, 1]])
  expect(pulsesUntil(tried, 1)).toEqual([0, 0, 0, 1])
  expect(pulsesUntil(tried, 2)).toEqual([1, 0, 0, 0])
  const alike = watered(nothingKnown([0, 1], false), 0)
  expect([...nextValves(alike)]).toEqual([[1, 1]])
  const four = watered(turned(watered(nothingKnown([0, 1, 2, 3], false), 0), 1), 3)
  expect([...nextValves(four)].map(([v, p]) => [v, Math.round(p * 100)])).toEqual([
    [1, 50],
    [2, 50],
  ])
})

test('what no state allows is taken for a count that was lost, not for a valve that cannot be', () => {
  const known = watered(nothingKnown([0, 1], true), 0)
  const lost = watered(known, 1)
  expect([lost.lost, [...nextValves(lost)]]).toEqual([1, [[0, 1]]])
  expect(watered(known, 7)).toEqual(known)
  const four = watered(watered(nothingKnown([0, 1, 2, 3], true), 0), 2)
  expect([four.lost, [...nextValves(four)]]).toEqual([1, [[3, 1]]])
})
