import type { Group } from './groups'
import type { Choice, ChoiceSolver } from './milp'
import type { Stocked } from './stock'

/** A linear demand on the sizes: Σ Ω/m · weight of a group ≤ limit, in volts. */
export interface Demand {
  readonly key: string
  readonly weights: ReadonlyMap<number, number>
  readonly limit_V: number
}

/** What is chosen: a size of the stock for every group. `chosen` is the number in `stock` of every group's size. */
export interface SizesAsked {
  /** Whole cents by group, then by size. */
  readonly costs: readonly (readonly number[])[]
  readonly stock: readonly Stocked[]
  /** The demands to begin with, and those that sizes break. */
  readonly begin: readonly Demand[]
  readonly broken: (chosen: readonly number[]) => readonly Demand[]
  /** Whether sizes that break no demand hold in every other way; those that do not are ruled out with all thinner. */
  readonly holds: (chosen: readonly number[]) => boolean
}
export interface Cheapest {
  readonly chosen: readonly number[]
  /** Nothing that keeps the demands costs less. */
  readonly bound_cents: number
}

const MOST_ROUNDS = 200
/** Half of the least coin: with whole cents, a bound nearer than one is the optimum. */
const WITHIN_CENT = 0.5

/** Whole cents of every group in every stocked size. */
export const costsOf = (groups: readonly Group[], stock: readonly Stocked[]): number[][] =>
  groups.map((g) => stock.map((s) => Math.round(g.length_m * s.cents_per_m)))

/** What so many groups cost in these sizes. */
export const sumOf = (costs: SizesAsked['costs'], chosen: readonly number[]): number =>
  chosen.reduce((sum, k, g) => sum + costs[g]![k]!, 0)

/** Solves the choice with the demands known so far until its answer breaks none; null where the time does not do. */
export function cheapestSizes(
  { costs, stock, begin, broken, holds }: SizesAsked,
  solve: ChoiceSolver,
  effort: {
    readonly relativeGap: number
    readonly time_s: number
    readonly onProgress?: ((best_cents: number | null, bound_cents: number, round: number) => void) | undefined
  },
): Cheapest | null {
  const demands = new Map<string, Demand>()
  const demand = (list: readonly Demand[]) => list.forEach((d) => demands.set(d.key, d))
  demand(begin)
  const ruledOut: (readonly number[])[] = []
  const { onProgress, relativeGap, time_s } = effort
  for (let round = 1; round <= MOST_ROUNDS; round++) {
    const answer = solve(choiceOf(costs, stock, [...demands.values()], ruledOut), {
      absoluteGap: WITHIN_CENT,
      relativeGap,
      time_s,
      ...(onProgress && { onProgress: (best, bound) => onProgress(best, bound, round) }),
    })
    if (answer.taken.length === 0) return null
    const chosen = answer.taken.map((column, g) => column - g * stock.length)
    const more = broken(chosen)
    if (more.length > 0) demand(more)
    else if (!holds(chosen)) ruledOut.push(chosen)
    else return { chosen, bound_cents: Math.min(sumOf(costs, chosen), Math.ceil(answer.bound - 1e-6)) }
  }
  return null
}

function choiceOf(
  costs: SizesAsked['costs'],
  stock: readonly Stocked[],
  demands: readonly Demand[],
  ruledOut: readonly (readonly number[])[],
): Choice {
  const column = (g: number, k: number) => g * stock.length + k
  const met = demands.map(({ weights, limit_V }) => {
    const pairs = [...weights].flatMap(([g, weight]) =>
      stock.map((s, k) => [column(g, k), weight * s.ohmPerM] as const),
    )
    return { columns: pairs.map(([c]) => c), values: pairs.map(([, v]) => v), limit: limit_V }
  })
  // At least one group must be thicker than in sizes that did not hold.
  const out = ruledOut.map((chosen) => {
    const columns = chosen.flatMap((k, g) => Array.from({ length: k + 1 }, (_, i) => column(g, i)))
    return { columns, values: columns.map(() => 1), limit: chosen.length - 1 }
  })
  return { costs: costs.flat(), sets: costs.map((_, g) => stock.map((_s, k) => column(g, k))), rows: [...met, ...out] }
}
