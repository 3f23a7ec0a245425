import { AGES, USUAL_ODDS, type Age, type Family, type OddsBasis } from '../hunt'
import type { Part } from '../record'
import type { Cell } from './rates'

/** How often each kind of part was found bad by hunts, over all properties. */
export type FoundCounts = Readonly<Partial<Record<Part['kind'], number>>>

/** What is usual weighs as much as so many failures of a kind or an age, and so many findings of all families. */
const USUAL_FAILURES = 5
const USUAL_FINDINGS = 40
const ROUNDS = 60

/**
 * Odds of the engine as a company’s own counts make them: a Poisson model in which kind and age each multiply the rate,
 * fitted in turns; each factor has a gamma prior around 1 that weighs as five failures, so that few
 * counts change little.
 */
export function adoptedOdds(cells: readonly Cell[], found: FoundCounts): OddsBasis {
  const { connector } = USUAL_ODDS
  const joints = factors(
    cells.filter((c) => c.part === 'joint'),
    ({ kind, age }) => weightOfJoint(kind) * usualAgeWeight(age),
  )
  const coils = factors(
    cells.filter((c) => c.part === 'coil'),
    () => 1,
  )
  const ages = (of: Factors) =>
    Object.fromEntries(AGE_NAMES.map((a) => [a, of.ages.get(a) ?? 1])) as Record<Age, number>
  return {
    ...USUAL_ODDS,
    families: familiesFrom(found),
    connector: Object.fromEntries(
      Object.entries(connector).map(([kind, usual]) => [
        kind,
        usual * (joints.kinds.get(kind === 'unknown' ? '' : kind) ?? 1),
      ]),
    ) as OddsBasis['connector'],
    coilKinds: Object.fromEntries(coils.kinds),
    ages: { joint: ages(joints), coil: ages(coils) },
  }
}

const AGE_NAMES: readonly Age[] = [...AGES.map((a) => a.age), 'unknown']
/**
 * How many times a new joint’s odds those of one of this age are, in its middle; the last band is taken to 40 years.
 */
function usualAgeWeight(age: Age): number {
  const band = AGES.find((a) => a.age === age)
  return band ? 1 + (band.from_years + Math.min(band.to_years, 40)) / 2 / USUAL_ODDS.old_years : 1
}
const weightOfJoint = (kind: string): number =>
  (USUAL_ODDS.connector as Readonly<Record<string, number>>)[kind === '' ? 'unknown' : kind] ?? 1

interface Factors {
  readonly kinds: ReadonlyMap<string, number>
  readonly ages: ReadonlyMap<Age, number>
}

function factors(cells: readonly Cell[], usual: (cell: Cell) => number): Factors {
  const kinds = new Map(cells.map((c) => [c.kind, 1]))
  const ages = new Map(cells.map((c) => [c.age, 1]))
  const failed = cells.reduce((sum, c) => sum + c.failed, 0)
  const expected = (c: Cell) => c.years * usual(c) * kinds.get(c.kind)! * ages.get(c.age)!
  for (let round = 0; round < ROUNDS && failed > 0; round++)
    for (const [map, by] of [
      [kinds, 'kind'],
      [ages, 'age'],
    ] as const) {
      const whole = cells.reduce((sum, c) => sum + expected(c), 0)
      if (!(whole > 0)) break
      const sums = new Map<string, { failed: number; expected: number }>()
      for (const c of cells) {
        const s = sums.get(c[by]) ?? { failed: 0, expected: 0 }
        // Without its own factor, which is what is asked.
        const own = (map as Map<string, number>).get(c[by])!
        sums.set(c[by], { failed: s.failed + c.failed, expected: s.expected + (failed / whole) * (expected(c) / own) })
      }
      for (const [key, s] of sums)
        (map as Map<string, number>).set(key, (s.failed + USUAL_FAILURES) / (s.expected + USUAL_FAILURES))
    }
  return { kinds, ages }
}

/**
 * Which families a part that was found bad may have belonged to: wire and joints of a common look like those of a lead.
 */
const FAMILIES_OF: Readonly<Record<Part['kind'], readonly Family[]>> = {
  coil: ['coil'],
  joint: ['splice', 'common'],
  run: ['conductor', 'common'],
  touch: ['conductor'],
  pair: ['record'],
  thread: ['unlisted'],
  valve: ['supply'],
  terminal: ['supply'],
  supply: ['supply'],
  sensor: ['supply'],
  water: ['supply'],
}

/** Families as often as they were found, with what is usual as so many findings more (a Dirichlet prior). */
function familiesFrom(found: FoundCounts): OddsBasis['families'] {
  const { families } = USUAL_ODDS
  const whole = Object.values(families).reduce((sum, w) => sum + w, 0)
  const counts = new Map<Family, number>()
  for (const [kind, n] of Object.entries(found) as [Part['kind'], number][]) {
    const of = FAMILIES_OF[kind]
    const usual = of.reduce((sum, f) => sum + families[f], 0)
    for (const f of of) counts.set(f, (counts.get(f) ?? 0) + (n * families[f]) / usual)
  }
  const n = [...counts.values()].reduce((sum, c) => sum + c, 0)
  return Object.fromEntries(
    (Object.entries(families) as [Family, number][]).map(([f, w]) => [
      f,
      (whole * ((counts.get(f) ?? 0) + (USUAL_FINDINGS * w) / whole)) / (n + USUAL_FINDINGS),
    ]),
  ) as OddsBasis['families']
}
