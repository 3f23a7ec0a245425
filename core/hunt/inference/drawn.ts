import type { Explanation } from '../beliefs'
import type { FaultHypothesis } from '../catalogue'
import type { AtFault, CellClass, Model } from './classes'
import type { Entry } from './group'
import type { Case, Island } from './island'
import { addTo, dot, zero, type Polynomial } from './polynomial'

/**
 * A lattice of so many points, and the step from one coordinate to the next: each coordinate alone comes to every part
 * of its range, and any two of 25 together to every part of theirs (N. M. Korobov, The approximate computation of
 * multiple integrals, 1959; the step is the best by the spectral test over all pairs).
 */
const [POINTS, STEP] = [239, 37]

/** The coordinates of a point, one after the other, each between 0 and 1. */
function coordinatesOf(point: number): () => number {
  let at = point
  return () => {
    const u = (at + 0.5) / POINTS
    at = (at * STEP) % POINTS
    return u
  }
}

/** Some things in a row, each as long as what it holds: the one at `u` of the way. */
function rowOf<T>(list: readonly T[], heldBy: (e: T) => number): (u: number) => T {
  let sum = 0
  const ends = list.map((e) => (sum += heldBy(e)))
  return (u) => list[ends.findIndex((end) => u * sum < end)] ?? list.at(-1)!
}

/**
 * Explanations of an island drawn by their belief, the likeliest first: where thousands hold next to nothing each, they
 * stand for all of them, as the likeliest few would not. `top`: the log of what all cases are held against; `worth`: of
 * a set of k faults beside its own product.
 */
export function drawn(
  { cases }: Island,
  { partOf }: Model,
  top: number,
  worth: Polynomial,
  atFaultsOf: (c: CellClass) => readonly AtFault[],
): Explanation[] {
  const shareOf = (c: Case) => Math.exp(c.top - top) * dot(worth, c.sum)
  const caseAt = rowOf(cases, shareOf)
  const oneMore = oneMoreOf(cases, top, worth)
  const rows = new Map<readonly Entry[], (u: number) => Entry>()
  const entryAt = (entries: readonly Entry[]) => {
    const most = entries.reduce((m, e) => Math.max(m, e.log), -Infinity)
    const row = rows.get(entries) ?? rowOf(entries, (e) => Math.exp(e.log - most) * oneMore ** e.classes.length)
    rows.set(entries, row)
    return row
  }
  const byCase = new Map<Case, { readonly faults: readonly FaultHypothesis[]; readonly weight: number }[]>()
  for (let point = 0; point < POINTS; point++) {
    const next = coordinatesOf(point)
    const c = caseAt(next())
    const lists = [...c.factors, c.beside].map(({ entries }) => entries)
    const classes = [...c.set, ...lists.flatMap((entries) => entryAt(entries)(next()).classes)]
    const faults: FaultHypothesis[] = []
    for (const one of classes) {
      const left = atFaultsOf(one).filter(({ cell }) => !faults.some((f) => partOf[f.fault] === partOf[cell.fault]))
      if (left.length > 0) faults.push(rowOf(left, ({ odds }) => odds)(next()).cell)
    }
    // Entries were drawn as if each fault were worth the same beside its odds.
    const weight = faults.length < classes.length ? 0 : (worth[faults.length] ?? 0) / oneMore ** faults.length
    const list = byCase.get(c)
    if (list) list.push({ faults, weight })
    else byCase.set(c, [{ faults, weight }])
  }
  const found = new Map<string, Explanation>()
  for (const [c, list] of byCase) {
    const whole = list.reduce((s, e) => s + e.weight, 0)
    for (const { faults, weight } of list) {
      if (weight === 0) continue
      const key = cellsOf(faults)
      found.set(key, { faults, p: (found.get(key)?.p ?? 0) + (shareOf(c) * weight) / whole })
    }
  }
  return [...found.values()].sort((a, b) => b.p - a.p)
}

/** The same for the same cells, in whatever order they come. */
export const cellsOf = (faults: readonly FaultHypothesis[]): string =>
  faults
    .map((f) => f.index)
    .sort((a, b) => a - b)
    .join()

/** What one more fault is worth beside its odds, at the number of faults that holds most. */
function oneMoreOf(cases: readonly Case[], top: number, worth: Polynomial): number {
  const held = zero()
  for (const c of cases) addTo(held, c.sum, Math.exp(c.top - top))
  const most = held.reduce((m, h, k) => (h * worth[k]! > held[m]! * worth[m]! ? k : m), 0)
  const [from, to] = most + 1 < worth.length && worth[most + 1]! > 0 ? [most, most + 1] : [most - 1, most]
  return from >= 0 && worth[from]! > 0 ? worth[to]! / worth[from]! : 1
}
