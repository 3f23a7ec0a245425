import { accepted, type Outcome } from '../refusal'
import {
  cheapestSizes,
  costsOf,
  groupsOf,
  MET_V,
  sizedPowered,
  stockOf,
  sumOf,
  type ChoiceSolver,
  type ChosenSizes,
} from '../sizing'
import type { PathAt, Site } from '../site'
import { coresOf } from './layout'
import { Moments, type PathMargin } from './moments'
import { pathEngine, worstFor } from './volts'

export interface PathSized extends ChosenSizes {
  readonly kind: 'sized'
  readonly weakest: PathMargin | null
}
export interface PathOutOfReach {
  readonly kind: 'out_of_reach'
  /** What lacks most with the thickest wire of the stores. */
  readonly weakest: PathMargin
  readonly failing: number
}
export type PathSizing = PathSized | PathOutOfReach | { readonly kind: 'nothing_free' | 'nothing_wired' | 'no_time' }

export interface PathSizingOptions {
  readonly anew?: boolean
  readonly time_s?: number
  readonly onProgress?: (best_cents: number | null, bound_cents: number) => void
}

/**
 * The cheapest sizes of a path's wire by which every decoder has its least volts, and every coil that starts behind one
 * its own, at the moment that is worst for it: mains low, ground hot, as many outputs on as the property runs together,
 * those that take most from it. Each T is so sized for its farthest decoder.
 *
 * In a tree the current of every length is known beforehand, so volts are linear in the ohms and the choice is an
 * integer programme whose demands are added as they are found broken; the circuit engine judges every answer. A loop is
 * sized so that it holds with its last length parted, and judged closed as well; its cost is then not proven least.
 */
export function sizePath(
  site: Site,
  at: PathAt,
  solve: ChoiceSolver,
  { anew = false, time_s = 60, onProgress }: PathSizingOptions = {},
): Outcome<PathSizing> {
  const made = pathEngine(site, at, 'constant_current', [], worstFor(site))
  if (!made.ok) return made
  const moments = new Moments(site, made.value)
  if (moments.watches.length === 0) return accepted({ kind: 'nothing_wired' })
  const { layout } = moments
  const powered = made.value.engine.powered
  const grouped = groupsOf(powered, anew, coresOf(layout))
  if (grouped.groups.length === 0) return accepted({ kind: 'nothing_free' })
  const stock = stockOf(site)
  const costs = costsOf(grouped.groups, stock)
  const all = (k: number) => grouped.groups.map(() => k)
  const known = new Map<string, readonly PathMargin[]>()
  const found = (chosen: readonly number[]): readonly PathMargin[] => {
    const key = chosen.join(' ')
    if (!known.has(key)) known.set(key, moments.margins(sizedPowered(powered, grouped, stock, chosen)))
    return known.get(key)!
  }
  const failing = found(all(stock.length - 1)).filter((m) => !isMet(m))
  if (failing.length > 0)
    return accepted({ kind: 'out_of_reach', weakest: weakestOf(failing)!, failing: failing.length })
  const isLooped = layout.closing.length > 0
  const demands = (chosen: readonly number[], of: readonly PathMargin[]) =>
    of.map((m) => moments.demandOf(m, grouped, (g) => stock[chosen[g]!]!.ohmPerM))
  const holds = (chosen: readonly number[]) =>
    !isLooped || moments.margins(sizedPowered(powered, grouped, stock, chosen), false).every(isMet)
  const cheapest = cheapestSizes(
    {
      costs,
      stock,
      begin: [all(stock.length - 1), all(0)].flatMap((chosen) => demands(chosen, found(chosen))),
      broken: (chosen) =>
        demands(
          chosen,
          found(chosen).filter((m) => !isMet(m)),
        ),
      holds,
    },
    solve,
    { relativeGap: 0, time_s, onProgress },
  )
  if (!cheapest) return accepted({ kind: 'no_time' })
  const uniform = stock
    .map((stocked, k) => ({ stocked, k, cost_cents: sumOf(costs, all(k)) }))
    .sort((a, b) => a.cost_cents - b.cost_cents)
    .find(({ k }) => found(all(k)).every(isMet) && holds(all(k)))
  return accepted({
    kind: 'sized',
    groups: grouped.groups,
    stock,
    chosen: cheapest.chosen,
    cost_cents: sumOf(costs, cheapest.chosen),
    bound_cents: isLooped ? null : cheapest.bound_cents,
    uniform: uniform ? { stocked: uniform.stocked, cost_cents: uniform.cost_cents } : null,
    weakest: weakestOf(found(cheapest.chosen)),
  })
}

/** Every decoder and starting coil of a path as its wire is now, at its worst moment; the weakest first. */
export function pathMargins(site: Site, at: PathAt): Outcome<PathMargin[]> {
  const made = pathEngine(site, at, 'constant_current', [], worstFor(site))
  if (!made.ok) return made
  const margins = new Moments(site, made.value).margins(made.value.engine.powered, false)
  return accepted(margins.sort((a, b) => a.margin_V - b.margin_V))
}

const isMet = (m: PathMargin) => m.margin_V >= -MET_V
const weakestOf = (list: readonly PathMargin[]): PathMargin | null =>
  list.reduce<PathMargin | null>((least, m) => (least && least.margin_V <= m.margin_V ? least : m), null)
