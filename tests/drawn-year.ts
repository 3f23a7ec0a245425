import { runsOf, wallClock, type Days } from '../core/schedule'
import type { Interval } from '../core/sequencer'
import { chance } from '../standins'

const DAY_s = 86_400
const DAYS = 365
const START_s = Date.parse('2027-01-01T00:00:00Z') / 1000

/** A year at a sequencer: when its screws are on, when the property has no power, and who was there unseen. */
export interface DrawnYear {
  readonly outputs: number
  /** Whether each output has a valve. */
  readonly isFitted: readonly boolean[]
  readonly off_ms: number
  /** The output that had power before the year. */
  readonly last: number
  readonly from_s: number
  readonly minutes: number
  /** By programs and by hand, all of it written down. */
  readonly on: readonly Interval[]
  readonly outages: readonly Interval[]
  /** Somebody ran it nobody knows how often: the odds of each number, and what it was. */
  readonly unseen: readonly {
    readonly at_s: number
    readonly odds: readonly number[]
    readonly on: readonly Interval[]
  }[]
}

/** Everything in whole minutes, so that a clock of minutes can follow it. */
export function drawnYear(seed: number): DrawnYear {
  const random = chance(seed)
  const pick = (most: number) => Math.floor(random() * most)
  const clock = wallClock('UTC')
  if (!clock.ok) throw new Error('UTC')
  const outputs = [2, 2, 3, 4][pick(4)]!
  const dayKinds: Days[] = [
    { kind: 'odd' },
    { kind: 'even' },
    { kind: 'every', n: 1 + pick(3), from: '2027-01-01' },
    { kind: 'weekdays', on: [0, 1, 2, 3, 4, 5, 6].filter(() => random() < 0.5) },
  ]
  const programs = Array.from({ length: 1 + pick(3) }, () => ({
    starts_s: Array.from({ length: 1 + pick(3) }, () => pick(1440) * 60),
    days: dayKinds[pick(4)]!,
    // Every other run is of another station: the sequencer has no power meanwhile, or none at all between.
    runs: Array.from({ length: 1 + pick(5) }, () => ({
      station: random() < 0.6 ? 'sequencer' : 'other',
      secondsIn: (
        (minutes) => () =>
          minutes * 60
      )(1 + pick(20)),
    })),
  }))
  const { runs } = runsOf(programs, { mode: 'stack', delay_s: [0, 60][pick(2)]! }, clock.value, '2027-01-01', DAYS)
  const sometime = (minutes: number): Interval => {
    const from_s = START_s + pick(DAYS * 1440 - 1440) * 60
    return { from_s, to_s: from_s + minutes * 60 }
  }
  const on = [
    ...runs.filter((r) => r.station === 'sequencer').map((r) => ({ from_s: r.start_s, to_s: r.end_s })),
    ...Array.from({ length: pick(30) }, () => sometime(1 + pick(6))),
  ]
  const outages = Array.from({ length: pick(20) }, () => sometime(2 + pick(400)))
  const isFree = (at_s: number) => [...on, ...outages].every((i) => at_s + 3600 < i.from_s || at_s - 1800 > i.to_s)
  const unseen = Array.from({ length: pick(12) }, () => {
    let at_s = sometime(1).from_s
    while (!isFree(at_s)) at_s = sometime(1).from_s
    const odds = [0.5, 0.3, 0.2]
    const draw = random()
    const times = draw < 0.5 ? 0 : draw < 0.8 ? 1 : 2
    return {
      at_s,
      odds,
      on: Array.from({ length: times }, (_, i) => ({ from_s: at_s + i * 600, to_s: at_s + i * 600 + 60 })),
    }
  }).filter((u, i, all) => all.every((v, j) => j >= i || Math.abs(v.at_s - u.at_s) > 7200))
  return {
    outputs,
    isFitted: Array.from({ length: outputs }, (_, i) => i < 2 || random() < 0.8),
    off_ms: [35, 500, 90_000][pick(3)]!,
    last: pick(outputs),
    from_s: START_s,
    minutes: (DAYS * DAY_s) / 60 + 2880,
    on,
    outages,
    unseen,
  }
}

/**
 * The same year by a clock of minutes: whether it has power, and for how long it had none.
 * @returns the minute and the output of every time at which power comes
 */
export function minuteByMinute(year: DrawnYear): { minute: number; output: number; isHeld: boolean }[] {
  const power = new Uint8Array(year.minutes)
  const write = (intervals: readonly Interval[], value: number) => {
    for (const { from_s, to_s } of intervals)
      for (let m = (from_s - year.from_s) / 60; m < (to_s - year.from_s) / 60; m++) power[m] = value
  }
  write(year.on, 1)
  for (const u of year.unseen) write(u.on, 1)
  write(year.outages, 0)
  const turns: { minute: number; output: number; isHeld: boolean }[] = []
  let [output, away_min, had] = [year.last, Infinity, 0]
  for (let minute = 0; minute < year.minutes; minute++) {
    const has = power[minute]!
    if (has && !had) {
      const isHeld = away_min * 60_000 < year.off_ms
      if (!isHeld) output = (output + 1) % year.outputs
      turns.push({ minute, output, isHeld })
    }
    away_min = has ? 0 : away_min + 1
    had = has
  }
  return turns
}
