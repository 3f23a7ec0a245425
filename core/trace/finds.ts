/**
 * What can be met along a path: a local rise (a decoder or a splice), a step down (a T), an end that is sharp (a
 * break), and one that spreads before it ends (a valve).
 */
export const FIND_KINDS = ['local', 'step', 'end', 'spread_end'] as const
export type FindKind = (typeof FIND_KINDS)[number]

/** A find as it is supposed: its middle, the part of the signal that a step keeps, how far a spread end spreads. */
export interface Supposed {
  readonly kind: FindKind
  readonly at_m: number
  readonly spread_m: number
}

/** A rise of a third, a raised cosine so wide at half its height. */
const [RISE_ratio, RISE_WIDE_m] = [1 / 3, 0.8]
/** A T and a break take place within so much. */
const SUDDEN_m = 0.3
/** Of the level that is left where the tone spreads at a valve. */
const SPREAD_ratio = 0.5
/** How far it spreads. */
export const SPREADS_m = [0.6, 0.75, 0.9, 1.05, 1.2] as const

/** The part of a sudden change that is done at a place: 0 before, 1 after. */
export const done = (along_m: number, at_m: number): number =>
  Math.min(1, Math.max(0, (along_m - at_m) / SUDDEN_m + 0.5))

/** What a local rise makes of the signal. */
export function rise(along_m: number, at_m: number): number {
  const off = Math.abs(along_m - at_m)
  return off >= RISE_WIDE_m ? 1 : 1 + (RISE_ratio / 2) * (1 + Math.cos((Math.PI * off) / RISE_WIDE_m))
}

/** What an end leaves of the signal. */
export function left({ kind, at_m, spread_m }: Supposed, along_m: number): number {
  if (kind === 'end') return 1 - done(along_m, at_m)
  if (along_m < at_m - spread_m / 2) return 1
  return along_m <= at_m + spread_m / 2 ? SPREAD_ratio : 0
}

export const isEnd = ({ kind }: Pick<Supposed, 'kind'>): boolean => kind === 'end' || kind === 'spread_end'
