/** A belief at some moment of a hunt, whether it was so, and whose hunt it was. */
export interface Believed {
  readonly p: number
  readonly there: boolean
  readonly of: number
}
export interface Decile {
  readonly from: number
  readonly count: number
  readonly said: number
  readonly true: number
  readonly low: number
  readonly high: number
  /** Within the interval of as many independent draws. */
  readonly within: boolean
  /** Beliefs of one hunt say nearly the same again and again: within the interval that takes each hunt for one draw. */
  readonly withinByHunt: boolean
}

/** 99 % of a normal lies within so many deviations. */
const Z99 = 2.5758

/** Beliefs by tenths: how often what was believed so was so, and the interval in which 99 % of draws lie. */
export function calibration(beliefs: readonly Believed[]): Decile[] {
  return Array.from({ length: 10 }, (_, d): Decile => {
    const list = beliefs.filter(({ p }) => Math.min(9, Math.floor(p * 10)) === d)
    const n = list.length
    const said = n === 0 ? 0 : list.reduce((s, { p }) => s + p, 0) / n
    const so = n === 0 ? 0 : list.filter(({ there }) => there).length / n
    const half = n === 0 ? 1 : Z99 * Math.sqrt((said * (1 - said)) / n) + 0.5 / n
    // What each hunt is off by, summed; hunts are independent of each other (the variance of clustered draws).
    const off = new Map<number, number>()
    for (const { p, there, of } of list) off.set(of, (off.get(of) ?? 0) + Number(there) - p)
    const spread = Math.sqrt([...off.values()].reduce((s, x) => s + x * x, 0))
    return {
      from: d / 10,
      count: n,
      said,
      true: so,
      low: said - half,
      high: said + half,
      within: Math.abs(so - said) <= half,
      withinByHunt: Math.abs(so - said) * n <= Z99 * spread + 0.5,
    }
  })
}
