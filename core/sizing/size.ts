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

const MOST_ROUNDS = 200
/** Up to here, with one station at a time, the answer is the optimum; beyond, it is within `GAP` of one. */
const EXACT_STATIONS = 40
const GAP = 0.004
/** Half of the least coin: with whole cents, a bound nearer than one is the optimum. */
const WITHIN_CENT = 0.5
/** Volts below which a demand counts as met: the choice solver's own tolerance on a row is as large. */
export const MET_V = 1e-8

/** What sizes are chosen from: a property's groups of conductors, the stock, and what each costs in each size. */
class Sizes {
  readonly grouped: Grouped
  readonly stock: readonly Stocked[]
  readonly costs: readonly (readonly number[])[]

  constructor(
    readonly model: Model,
    anew: boolean,
  ) {
    this.grouped = groupsOf(model.powered, anew)
    this.stock = stockOf(model.site)
    this.costs = costsOf(this.grouped, this.stock)
  }
  /** The same size for every group. */
  all(k: number): number[] {
    return this.grouped.groups.map(() => k)
  }
  cost_cents(chosen: readonly number[]): number {
    return chosen.reduce((sum, k, g) => sum + this.costs[g]![k]!, 0)
  }
  found(chosen: readonly number[]): Violation[] {
    return this.model.findAll(ohmsOf(this.model.powered, this.grouped, this.stock, chosen))
  }
  borne(chosen: readonly number[]): boolean {
    return borne(this.model, this.grouped, this.stock, chosen)
  }
  /** The cheapest single size by which all hold. */
  uniform(): Sized['uniform'] {
    const holds = (chosen: readonly number[]) => this.found(chosen).every(isMet) && this.borne(chosen)
    return (
      this.stock
        .map((stocked, k) => ({ stocked, k, cost_cents: this.cost_cents(this.all(k)) }))
        .sort((a, b) => a.cost_cents - b.cost_cents)
        .find(({ k }) => holds(this.all(k))) ?? null
    )
  }
  answer(chosen: readonly number[], bound_cents: number | null, uniform: Sized['uniform']): Sized {
    return {
      kind: 'sized',
      groups: this.grouped.groups,
      stock: this.stock,
      chosen,
      cost_cents: this.cost_cents(chosen),
      bound_cents,
      uniform,
      weakest: least(this.found(chosen)),
    }
  }
}
const isMet = (v: Violation): boolean => v.margin_V >= -MET_V

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
  const sizes = new Sizes(model, anew)
  if (model.watches.length === 0) return { kind: 'nothing_wired' }
  if (sizes.grouped.groups.length === 0) return { kind: 'nothing_free' }
  const failing = sizes.found(sizes.all(sizes.stock.length - 1)).filter((f) => !isMet(f))
  if (failing.length > 0) {
    const worst = least(failing)
    const mends = mendsFor(site, anew)
    return { kind: 'infeasible', worst, shortfall_V: -worst.margin_V, failing: failing.length, mends }
  }
  const uniform = sizes.uniform()
  if (site.settings.sizing.school === 'reach_table') {
    const table = byTable(model, sizes.grouped, sizes.stock)
    return 'chosen' in table ? sizes.answer(table.chosen, null, uniform) : table
  }
  const cheapest = cheapestOf(sizes, solve, time_s / 2, onProgress)
  return cheapest ? sizes.answer(cheapest.chosen, cheapest.bound_cents, uniform) : { kind: 'no_time' }
}

/** Solves the choice with the demands known so far until its answer breaks none; null where the time does not do. */
function cheapestOf(
  sizes: Sizes,
  solve: ChoiceSolver,
  time_s: number,
  onProgress: SizingOptions['onProgress'],
): { readonly chosen: readonly number[]; readonly bound_cents: number | null } | null {
  const { model, stock, costs, grouped } = sizes
  const demands = new Map<string, Demand>()
  const demand = (list: readonly Violation[]) =>
    list.forEach((f) => {
      const d = model.demandOf(f, grouped)
      demands.set(d.key, d)
    })
  demand(sizes.found(sizes.all(stock.length - 1)))
  demand(sizes.found(sizes.all(0)))
  const ruledOut: (readonly number[])[] = []
  const stations = model.plants.reduce((sum, p) => sum + p.starts.length, 0)
  const exact = model.site.settings.sizing.together === 1 && stations <= EXACT_STATIONS
  for (let round = 1; round <= MOST_ROUNDS; round++) {
    const answer = solve(choiceOf(costs, stock, [...demands.values()], ruledOut), {
      absoluteGap: WITHIN_CENT,
      relativeGap: exact ? 0 : GAP,
      time_s,
      onProgress: onProgress && ((best, bound) => onProgress(best, bound, round)),
    })
    if (answer.taken.length === 0) return null
    const chosen = answer.taken.map((column, g) => column - g * stock.length)
    const broken = sizes.found(chosen).filter((f) => !isMet(f))
    if (broken.length > 0) demand(broken)
    else if (!sizes.borne(chosen)) ruledOut.push(chosen)
    else {
      const bound = Math.min(sizes.cost_cents(chosen), Math.ceil(answer.bound - 1e-6))
      return { chosen, bound_cents: model.looped ? null : bound }
    }
  }
  return null
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
  costs: readonly (readonly number[])[],
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
