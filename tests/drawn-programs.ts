import { chance } from '../standins'
import type { Days, Program } from '../core/schedule'

/** Zones with a change in the dates that are drawn, and some without. */
const CHANGES: readonly (readonly [zone: string, date: string])[] = [
  ['America/New_York', '2027-03-13'],
  ['America/New_York', '2027-11-06'],
  ['Europe/Berlin', '2027-03-27'],
  ['Europe/Berlin', '2027-10-30'],
  ['Australia/Lord_Howe', '2027-04-03'],
  ['Australia/Lord_Howe', '2027-10-02'],
  ['UTC', '2028-02-28'],
  ['Asia/Kathmandu', '2027-12-31'],
]

/** A set of programs as somebody might have left it, starts crowded about the hours at which clocks change. */
export function drawnPrograms(seed: number): {
  programs: (Program<string> & { readonly seasonal_pct: number })[]
  zone: string
  from: string
  days: number
  mode: 'stack' | 'overlap'
  delay_s: number
} {
  const random = chance(seed)
  const pick = (most: number) => Math.floor(random() * most)
  const [zone, from] = CHANGES[pick(CHANGES.length)]!
  const dayKinds: readonly (() => Days | null)[] = [
    () => ({ kind: 'weekdays', on: [0, 1, 2, 3, 4, 5, 6].filter(() => random() < 0.6) }),
    () => ({ kind: 'odd' }),
    () => ({ kind: 'even' }),
    () => ({ kind: 'every', n: 1 + pick(3), from: random() < 0.5 ? from : '2027-01-05' }),
    () => null,
  ]
  const programs = Array.from({ length: 1 + pick(4) }, (_, i) => ({
    name: 'ABCD'[i]!,
    starts_s: Array.from({ length: pick(4) }, () => (random() < 0.6 ? pick(5 * 60) : pick(1440)) * 60),
    days: dayKinds[Math.min(pick(6), 4)]!(),
    seasonal_pct: [100, 100, 75, 130, 33][pick(5)]!,
    runs: Array.from({ length: pick(5) }, () => ({
      station: String(1 + pick(6)),
      minutes: random() < 0.15 ? 0 : Math.round(random() * 400) / 10,
    })),
  }))
  return {
    programs,
    zone,
    from,
    days: 2 + pick(2),
    mode: random() < 0.7 ? 'stack' : 'overlap',
    delay_s: [0, 0, 5, 60][pick(4)]!,
  }
}
