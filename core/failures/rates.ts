import { AGES, ageAt, type Age } from '../hunt'
import { poissonInterval } from './interval'
import { COUNTED, type Counted, type Life } from './lives'

/** So many lives that are alike. */
export interface Lives extends Life {
  readonly count: number
}

/** What was counted of parts of one kind and age. */
export interface Cell {
  readonly part: Counted
  readonly kind: string
  readonly age: Age
  /** Parts that live on at this age. */
  readonly now: number
  /** Years that parts were under our eyes at this age, all added. */
  readonly years: number
  readonly failed: number
  readonly foundBad: number
}

const DAY_ms = 86_400_000
const YEAR_days = 365.25
const dayNumber = (day: string): number => Date.parse(day.slice(0, 10)) / DAY_ms

/** Lives that are alike, counted together; by whole days. */
export function together(lives: readonly (Life | Lives)[]): Lives[] {
  const groups = new Map<string, Lives>()
  for (const life of lives) {
    const [from, until] = [life.from.slice(0, 10), life.until?.slice(0, 10) ?? null]
    const key = [life.part, life.kind, life.made, from, until, life.end].join(' ')
    const count = (groups.get(key)?.count ?? 0) + ('count' in life ? life.count : 1)
    groups.set(key, { ...life, from, until, count })
  }
  return [...groups.values()]
}

/** What was counted up to a day: years under our eyes and failures, by kind and age. */
export function cellsOf(lives: readonly Lives[], today: string): Cell[] {
  const cells = new Map<string, { -readonly [K in keyof Cell]: Cell[K] }>()
  const at = (life: Lives, age: Age) => {
    const { part, kind } = life
    const key = `${part} ${age} ${kind}`
    const found = cells.get(key) ?? { part, kind, age, now: 0, years: 0, failed: 0, foundBad: 0 }
    cells.set(key, found)
    return found
  }
  for (const life of lives) {
    const last = life.until ?? today
    for (const { age, years } of agesThrough(life.made, life.from, last)) at(life, age).years += years * life.count
    const cell = at(life, ageAt(life.made, last))
    if (life.end === 'lives') cell.now += life.count
    if (life.end === 'failed') cell.failed += life.count
    if (life.end === 'found_bad') cell.foundBad += life.count
  }
  return [...cells.values()]
}

/** How long of a stretch of time something had each age. */
function agesThrough(made: string | null, from: string, until: string): { age: Age; years: number }[] {
  const [first, last] = [dayNumber(from), Math.max(dayNumber(from), dayNumber(until))]
  if (made === null) return [{ age: 'unknown', years: (last - first) / YEAR_days }]
  const born = dayNumber(made)
  return AGES.flatMap(({ age, from_years, to_years }) => {
    const a = Math.max(first, age === AGES[0].age ? -Infinity : born + from_years * YEAR_days)
    const b = Math.min(last, born + to_years * YEAR_days)
    return b > a ? [{ age, years: (b - a) / YEAR_days }] : []
  })
}

/** How often parts of a kind, or of an age, fail. */
export interface Rate {
  readonly of: string
  readonly now: number
  readonly years: number
  readonly failed: number
  readonly foundBad: number
  /**
   * Failures a year of one part, and what the count leaves possible with 95 % confidence; null where no time passed.
   */
  readonly perYear: { readonly mean: number; readonly low: number; readonly high: number } | null
}

/** Shorter than this nothing is said of a year. */
const FEWEST_YEARS = 1e-6

function rateOf(of: string, cells: readonly Cell[]): Rate {
  const sum = (what: 'now' | 'years' | 'failed' | 'foundBad') => cells.reduce((s, c) => s + c[what], 0)
  const [years, failed] = [sum('years'), sum('failed')]
  const { low, high } = poissonInterval(failed)
  const perYear = years > FEWEST_YEARS ? { mean: failed / years, low: low / years, high: high / years } : null
  return { of, now: sum('now'), years, failed, foundBad: sum('foundBad'), perYear }
}

/** How often joints and coils fail, by their kind (those with the most years first) and by their age. */
export function ratesOf(cells: readonly Cell[]): Record<Counted, { kinds: Rate[]; ages: Rate[] }> {
  const grouped = (part: Counted, by: 'kind' | 'age') => {
    const own = cells.filter((c) => c.part === part)
    return [...new Set(own.map((c) => c[by]))].map((of) =>
      rateOf(
        of,
        own.filter((c) => c[by] === of),
      ),
    )
  }
  const order: readonly string[] = [...AGES.map((a) => a.age), 'unknown']
  return Object.fromEntries(
    COUNTED.map((part) => [
      part,
      {
        kinds: grouped(part, 'kind').sort((a, b) => b.years - a.years || a.of.localeCompare(b.of)),
        ages: grouped(part, 'age').sort((a, b) => order.indexOf(a.of) - order.indexOf(b.of)),
      },
    ]),
  ) as Record<Counted, { kinds: Rate[]; ages: Rate[] }>
}
