import { lengthBetween_m, getOrThrow, stopPositions_m, type Site } from '../site'
import { engineVerifier } from './engine-verifier'
import { groupsOf, type Group, type Grouped } from './groups'
import { mendsFor, type Mend } from './mend'
import type { Choice, ChoiceSolver } from './milp'
import { Model, type Demand, type Violation } from './model'
import { reachTable, sizeForReach } from './reach'
import { ohmsOf, sizedPowered } from './sized'
import { stockOf, type Stocked } from './stock'

export interface Sized {
  readonly kind: 'sized'
  readonly groups: readonly Group[]
  readonly stock: readonly Stocked[]
  /** The number in `stock` of every group's size. */
  readonly chosen: readonly number[]
  readonly cost_cents: number
  /** Nothing that holds costs less; null where a loop in the wiring keeps it from being proven. */
  readonly bound_cents: number | null
  /** The best single size for all of them, null where none holds. */
  readonly uniform: { readonly stocked: Stocked; readonly cost_cents: number } | null
  /** The coil with least to spare, by the model. */
  readonly weakest: Violation | null
}
export interface Infeasible {
  readonly kind: 'infeasible'
  /** The coil that lacks most with the thickest wire that is stocked. */
  readonly worst: Violation
  readonly shortfall_V: number
  readonly failing: number
  /** Single changes that each mend it, the smallest first; none where it takes more than one. */
  readonly mends: readonly Mend[]
}
/** By the reach table: a thread longer than its longest entry. */
export interface BeyondTable {
  readonly kind: 'beyond_table'
  readonly worst: Violation
  readonly length_m: number
  readonly longest_m: number
}
export interface NothingFree {
  readonly kind: 'nothing_free' | 'nothing_wired' | 'no_time'
}
export type SizingAnswer = Sized | Infeasible | BeyondTable | NothingFree

export interface SizingOptions {
  readonly anew?: boolean
  readonly time_s?: number
  readonly onProgress?: (best_cents: number | null, bound_cents: number, round: number) => void
}

/** Up to here, with one station at a time, the answer is the optimum; beyond, it is within `GAP` of one. */
const EXACT_STATIONS = 40
const GAP = 0.004
/** Half of the least coin: with whole cents, a bound nearer than one is the optimum. */
const WITHIN_CENT = 0.5
/** Volts below which a demand counts as met: the choice solver's own tolerance on a row is as large. */
export const MET_V = 1e-8

/**
 * The cheapest sizes, one per jacket or piece of single conductor, that give every coil its volts at its worst
 * moment: by the model (coils of constant current, drops added) as a choice problem whose demands are added as they
 * are found broken, and then by the circuit engine in the safe phase. Sizes that the engine refuses are ruled out,
 * with all thinner ones.
 */
export function size(
  site: Site,
  solve: ChoiceSolver,
  { anew = false, time_s = 60, onProgress }: SizingOptions = {},
): SizingAnswer {
  const model = new Model(site)
  const grouped = groupsOf(model.powered, anew)
  const stock = stockOf(site)
  if (model.watches.length === 0) return { kind: 'nothing_wired' }
  if (grouped.groups.length === 0) return { kind: 'nothing_free' }
  const costs = costsOf(grouped, stock)
  const costOf = (chosen: readonly number[]) => chosen.reduce((sum, k, g) => sum + costs[g]![k]!, 0)
  const found = (chosen: readonly number[]) => model.findAll(ohmsOf(model.powered, grouped, stock, chosen))
  const all = (k: number) => grouped.groups.map(() => k)

  const thickest = found(all(stock.length - 1))
  const failing = thickest.filter((f) => f.margin_V < -MET_V)
  if (failing.length > 0) {
    const worst = least(failing)
    return {
      kind: 'infeasible',
      worst,
      shortfall_V: -worst.margin_V,
      failing: failing.length,
      mends: mendsFor(site, anew),
    }
  }
  const holds = (chosen: readonly number[]) =>
    found(chosen).every((f) => f.margin_V >= -MET_V) && borne(model, grouped, stock, chosen)
  const uniform =
    stock
      .map((stocked, k) => ({ stocked, k, cost_cents: costOf(all(k)) }))
      .sort((a, b) => a.cost_cents - b.cost_cents)
      .find(({ k }) => holds(all(k))) ?? null
  if (site.settings.sizing.school === 'reach_table') {
    const table = byTable(model, grouped, stock)
    return 'chosen' in table
      ? {
          kind: 'sized',
          groups: grouped.groups,
          stock,
          chosen: table.chosen,
          cost_cents: costOf(table.chosen),
          bound_cents: null,
          uniform,
          weakest: least(found(table.chosen)),
        }
      : table
  }

  const demands = new Map<string, Demand>()
  const demand = (list: readonly Violation[]) =>
    list.forEach((f) => {
      const d = model.demandOf(f, grouped)
      demands.set(d.key, d)
    })
  demand(thickest)
  demand(found(all(0)))
  const ruledOut: number[][] = []
  const exact =
    site.settings.sizing.together === 1 && model.plants.reduce((sum, p) => sum + p.starts.length, 0) <= EXACT_STATIONS
  const until = time_s / 2
  for (let round = 1; round <= 200; round++) {
    const answer = solve(choiceOf(costs, stock, [...demands.values()], ruledOut), {
      absoluteGap: WITHIN_CENT,
      relativeGap: exact ? 0 : GAP,
      time_s: until,
      onProgress: onProgress && ((best, bound) => onProgress(best, bound, round)),
    })
    if (answer.taken.length === 0) return { kind: 'no_time' }
    const chosen = answer.taken.map((column, g) => column - g * stock.length)
    const now = found(chosen)
    const broken = now.filter((f) => f.margin_V < -MET_V)
    if (broken.length > 0) {
      demand(broken)
      continue
    }
    if (!borne(model, grouped, stock, chosen)) {
      ruledOut.push(chosen)
      continue
    }
    const bound_cents = model.looped ? null : Math.min(costOf(chosen), Math.ceil(answer.bound - 1e-6))
    return {
      kind: 'sized',
      groups: grouped.groups,
      stock,
      chosen,
      cost_cents: costOf(chosen),
      bound_cents,
      uniform,
      weakest: least(now),
    }
  }
  return { kind: 'no_time' }
}

/** Every conductor the thinnest size that the reach table allows the longest thread through it. */
function byTable(
  model: Model,
  { groups, groupOf }: Grouped,
  stock: readonly Stocked[],
): { chosen: number[] } | BeyondTable {
  const table = reachTable(model.site)!
  const chosen = groups.map(() => 0)
  for (const { watch, ...found } of model.findAll(Float64Array.from(model.powered.parts, (p) => p.z.re))) {
    if (watch.part !== 'starting') continue
    const length_m = watchedLength_m(model, watch)
    const needed = sizeForReach(table, length_m)
    if (!needed)
      return { kind: 'beyond_table', worst: { watch, ...found }, length_m, longest_m: table.rows.at(-1)!.reach_m[0]! }
    const k = stock.findIndex((s) => s.ohmPerM === needed.ohmPerM)
    for (const e of watch.way.elements) if (groupOf[e]! >= 0) chosen[groupOf[e]!] = Math.max(chosen[groupOf[e]!]!, k)
  }
  return { chosen }
}

/** Half the metres of conductor, out and home, that a thread runs through. */
function watchedLength_m(model: Model, { way }: Violation['watch']): number {
  let total_m = 0
  way.elements.forEach((e, k) => {
    const { of } = model.powered.parts[e]!
    if (of.kind === 'stretch')
      total_m +=
        Math.abs(way.shares[k]!) *
        lengthBetween_m(stopPositions_m(getOrThrow(model.site.cables, of.cable)), of.from, of.to).high
  })
  return total_m / 2
}

const least = (list: readonly Violation[]): Violation => list.reduce((a, b) => (b.margin_V < a.margin_V ? b : a))

/** Whole cents of every group in every stocked size. */
const costsOf = ({ groups }: Grouped, stock: readonly Stocked[]): number[][] =>
  groups.map((g) => stock.map((s) => Math.round(g.length_m * s.cents_per_m)))

function choiceOf(
  costs: readonly number[][],
  stock: readonly Stocked[],
  demands: readonly Demand[],
  ruledOut: readonly number[][],
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

/**
 * Whether the circuit engine gives every coil its volts at every worst moment with these sizes; and, in a loop, the
 * model made anew with them.
 */
export function borne(model: Model, grouped: Grouped, stock: readonly Stocked[], chosen: readonly number[]): boolean {
  const powered = sizedPowered(model.powered, grouped, stock, chosen)
  const now = model.looped ? new Model(model.site, powered) : model
  const found = now.findAll(ohmsOf(powered, grouped, stock, chosen))
  if (found.some((f) => f.margin_V < -MET_V)) return false
  const bear = engineVerifier(now, powered)
  const seen = new Set<string>()
  return found.every(({ moment }) => {
    const key = [moment.starter.station, ...moment.others.map((o) => o.station).sort()].join(' ')
    if (seen.has(key)) return true
    seen.add(key)
    return bear(moment).coils.every((c) => c.margin_V >= -MET_V)
  })
}
