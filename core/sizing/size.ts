import { lengthBetween_m, getOrThrow, stopPositions_m, type Site } from '../site'
import { cheapestSizes, costsOf, sumOf, type Demand } from './cheapest'
import { engineVerifier } from './engine-verifier'
import { groupsOf, type Group, type Grouped } from './groups'
import { mendsFor, type Mend } from './mend'
import type { ChoiceSolver } from './milp'
import { Model, type Violation } from './model'
import { reachTable, sizeForReach } from './reach'
import { ohmsOf, sizedPowered } from './sized'
import { stockOf, type Stocked } from './stock'

/** Sizes for a property's wire, and what they cost. */
export interface ChosenSizes {
  readonly groups: readonly Group[]
  readonly stock: readonly Stocked[]
  /** The number in `stock` of every group's size. */
  readonly chosen: readonly number[]
  readonly cost_cents: number
  /** Nothing that holds costs less; null where a loop in the wiring keeps it from being proven. */
  readonly bound_cents: number | null
  /** The best single size for all of them, null where none holds. */
  readonly uniform: { readonly stocked: Stocked; readonly cost_cents: number } | null
}
export interface Sized extends ChosenSizes {
  readonly kind: 'sized'
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
    this.costs = costsOf(this.grouped.groups, this.stock)
  }
  /** The same size for every group. */
  all(k: number): number[] {
    return this.grouped.groups.map(() => k)
  }
  cost_cents(chosen: readonly number[]): number {
    return sumOf(this.costs, chosen)
  }
  found(chosen: readonly number[]): Violation[] {
    return this.model.findAll(ohmsOf(this.model.powered, this.grouped, this.stock, chosen))
  }
  demands(list: readonly Violation[]): Demand[] {
    return list.map((f) => this.model.demandOf(f, this.grouped))
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
  const stations = model.plants.reduce((sum, p) => sum + p.starts.length, 0)
  const exact = site.settings.sizing.together === 1 && stations <= EXACT_STATIONS
  const { costs, stock } = sizes
  const cheapest = cheapestSizes(
    {
      costs,
      stock,
      broken: (chosen) => sizes.demands(sizes.found(chosen).filter((f) => !isMet(f))),
      begin: [sizes.all(stock.length - 1), sizes.all(0)].flatMap((chosen) => sizes.demands(sizes.found(chosen))),
      holds: (chosen) => sizes.borne(chosen),
    },
    solve,
    { relativeGap: exact ? 0 : GAP, time_s: time_s / 2, onProgress },
  )
  return cheapest
    ? sizes.answer(cheapest.chosen, model.looped ? null : cheapest.bound_cents, uniform)
    : { kind: 'no_time' }
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
