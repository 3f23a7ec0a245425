import { poweredTurns, union, without, type Interval } from '.'

/** A steady pseudo-random whole number below a bound (32-bit LCG). */
function drawer(seed: number): (below: number) => number {
  let state = seed >>> 0
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
}

const LONG_s = 600
const drawn = (draw: (below: number) => number, count: number): Interval[] =>
  Array.from({ length: count }, () => {
    const from_s = draw(LONG_s - 60)
    return { from_s, to_s: from_s + draw(50) }
  })
const holds = (intervals: readonly Interval[], second: number) =>
  intervals.some((i) => i.from_s <= second && second < i.to_s)

test('turns are those of a clock that ticks: power back after long enough steps by one, else not', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const draw = drawer(seed)
    const [on, outages] = [drawn(draw, 2 + draw(12)), drawn(draw, draw(4))]
    const [outputs, off_s, last] = [2 + draw(3), draw(6), draw(2)]
    let [output, away_s, wasOn] = [last, Infinity, false]
    const ticked: string[] = []
    for (let second = 0; second <= LONG_s; second++) {
      const isOn = holds(on, second) && !holds(outages, second)
      if (isOn && !wasOn) {
        const isHeld = away_s < off_s
        if (!isHeld) output = (output + 1) % outputs
        ticked.push(`${second} ${output} ${isHeld}`)
      }
      away_s = isOn ? 0 : away_s + 1
      wasOn = isOn
    }
    const turns = poweredTurns(on, outages, { outputs, off_ms: off_s * 1000 }, last)
    expect([seed, turns.map((t) => `${t.from_s} ${t.output} ${t.isHeld}`)]).toEqual([seed, ticked])
  }
})

test('intervals are joined where they touch, and cut where others lie', () => {
  const at = (from_s: number, to_s: number) => ({ from_s, to_s })
  expect(union([at(5, 9), at(0, 5), at(20, 20), at(12, 14)])).toEqual([at(0, 9), at(12, 14)])
  expect(without([at(0, 10), at(20, 30)], [at(8, 22), at(25, 26)])).toEqual([at(0, 8), at(22, 25), at(26, 30)])
})
