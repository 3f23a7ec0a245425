import type { PlaceId, Splice } from '../site'

/** What can be wrong with a part. */
export const CAUSES = [
  'open',
  'series',
  'leak',
  'touch',
  'intermittent',
  'coil_open',
  'coil_short',
  'coil_part',
  'coil_dc',
  'coil_kind',
  'swapped',
  'doubled',
  'misjoined',
  'terminal_dead',
  'supply_dead',
  'sensor_open',
  'stuck_shut',
  'stuck_open',
  'water_off',
  'unlisted',
] as const
export type Cause = (typeof CAUSES)[number]

/**
 * The families among which trouble is counted. A common is the return that several stations share; unlisted is what
 * befalls a thread and is none of the others.
 */
export const FAMILIES = ['coil', 'splice', 'conductor', 'common', 'record', 'supply', 'unlisted'] as const
export type Family = (typeof FAMILIES)[number]

/** Years since a part was made or put in, in bands. */
export const AGES = [
  { age: 'to_2', from_years: 0, to_years: 2 },
  { age: 'to_5', from_years: 2, to_years: 5 },
  { age: 'to_10', from_years: 5, to_years: 10 },
  { age: 'to_20', from_years: 10, to_years: 20 },
  { age: 'over_20', from_years: 20, to_years: Infinity },
] as const
export type Age = (typeof AGES)[number]['age'] | 'unknown'
const YEAR_ms = 31_557_600_000

/** Years between two days; 0 where the first is not known or comes later. */
const yearsSince = (made: string | null, today: string | null): number =>
  made === null || today === null ? 0 : Math.max(0, (Date.parse(today) - Date.parse(made)) / YEAR_ms)

export function ageAt(made: string | null, today: string | null): Age {
  if (made === null || today === null) return 'unknown'
  const years = yearsSince(made, today)
  return AGES.find((a) => years < a.to_years)!.age
}

/**
 * How often which trouble is met before anything is measured. Every figure is a weight: families against each other,
 * causes within their family, and circumstances by which a part is likelier than its like. `docs/numbers.md` gives
 * the reason of each.
 */
export interface OddsBasis {
  /** No fault in the wiring, one, two … eight. */
  readonly count: readonly number[]
  readonly families: Readonly<Record<Family, number>>
  readonly causes: { readonly [F in Family]: Readonly<Record<keyof (typeof USUAL_CAUSES)[F], number>> }
  /**
   * Joints by what holds them, and by the years since they were made: a joint at `old_years` counts twice a new one.
   */
  readonly connector: Readonly<Record<Splice['connector'], number>>
  readonly old_years: number
  /** Besides that, joints and coils by their age, and coils by the name of their kind; 1 where nothing is said. */
  readonly ages: Readonly<Record<'joint' | 'coil', Readonly<Record<Age, number>>>>
  readonly coilKinds: Readonly<Record<string, number>>
  /** A part on record as suspect. */
  readonly suspect: number
  readonly digging: number
  readonly flooding: number
  readonly lightning: number
  readonly othersWork: number
  readonly rodents: number
}

const USUAL_CAUSES = {
  coil: { coil_open: 62, coil_short: 19, coil_part: 14, coil_dc: 5 },
  splice: { open: 68, series: 24, leak: 4, intermittent: 4 },
  conductor: { open: 66, series: 8, touch: 18, leak: 8 },
  common: { open: 80, series: 16, leak: 4 },
  record: { swapped: 66, doubled: 20, coil_kind: 14, misjoined: 12 },
  supply: {
    supply_dead: 20,
    sensor_open: 10,
    terminal_dead: 25,
    stuck_shut: 25,
    stuck_open: 10,
    water_off: 10,
  },
  unlisted: { unlisted: 1 },
} as const satisfies Readonly<Record<Family, Partial<Record<Cause, number>>>>

const EVEN: Readonly<Record<Age, number>> = { to_2: 1, to_5: 1, to_10: 1, to_20: 1, over_20: 1, unknown: 1 }

export const USUAL_ODDS: OddsBasis = {
  count: [15, 45, 22, 10, 4, 2, 1, 0.6, 0.4],
  families: { coil: 25, splice: 30, conductor: 20, common: 10, record: 10, supply: 5, unlisted: 1 },
  causes: USUAL_CAUSES,
  connector: {
    bare_twist: 20,
    dry_nut: 6,
    unknown: 2,
    gel_crimp_3: 1,
    nut_and_gel_tube: 1,
    gel_nut: 1,
    solder_heatshrink: 1,
    terminal: 1,
    cap: 1,
  },
  old_years: 10,
  ages: { joint: EVEN, coil: EVEN },
  coilKinds: {},
  suspect: 6,
  digging: 8,
  flooding: 4,
  lightning: 4,
  othersWork: 5,
  rodents: 3,
}

/** How many times likelier than its like a joint is by what holds it and by its age. */
export function jointWeight(
  basis: OddsBasis,
  connector: Splice['connector'],
  made: string | null,
  today: string | null,
): number {
  const grown = 1 + yearsSince(made, today) / basis.old_years
  return basis.connector[connector] * grown * basis.ages.joint[ageAt(made, today)]
}
/** As `jointWeight`, of a coil by the name of its kind. */
export function coilWeight(basis: OddsBasis, kind: string, made: string | null, today: string | null): number {
  return (basis.coilKinds[kind] ?? 1) * basis.ages.coil[ageAt(made, today)]
}

/** What is known of the season: where somebody dug, where water stood, and what else befell the property. */
export interface Circumstances {
  readonly digging: readonly PlaceId[]
  readonly flooding: readonly PlaceId[]
  readonly rodents: readonly PlaceId[]
  readonly lightning: boolean
  readonly othersWork: boolean
}
export const QUIET: Circumstances = { digging: [], flooding: [], rodents: [], lightning: false, othersWork: false }

/** How many times likelier circumstances make a cause at these places. */
export function circumstanceFactor(
  basis: OddsBasis,
  c: Circumstances,
  family: Family,
  cause: Cause,
  places: readonly PlaceId[],
): number {
  const near = (list: readonly PlaceId[]) => places.some((p) => list.includes(p))
  let factor = 1
  if ((family === 'conductor' || family === 'common') && near(c.digging)) factor *= basis.digging
  if ((family === 'conductor' || family === 'common') && near(c.rodents)) factor *= basis.rodents
  if ((cause === 'series' || cause === 'leak' || cause === 'intermittent') && near(c.flooding)) factor *= basis.flooding
  if (c.lightning && (family === 'coil' || cause === 'supply_dead' || cause === 'terminal_dead'))
    factor *= basis.lightning
  if (c.othersWork && family === 'record') factor *= basis.othersWork
  return factor
}
