import { UNKNOWN_TRANSFORMER_VA } from '../circuit'
import { gaugeText } from '../quantity'
import type { Site } from '../site'
import { groupsOf } from './groups'
import { Model } from './model'
import { ohmsOf } from './sized'
import { beyondStock, stockOf, type Stocked } from './stock'
import { asIf } from './what-if'

/** One change that alone lets the thickest stocked wire do: what, and how much of it. */
export type Mend =
  | { readonly code: 'master_first' }
  | { readonly code: 'together'; readonly together: number }
  | { readonly code: 'transformer'; readonly rating_VA: number }
  | { readonly code: 'thicker'; readonly gauge: string }
  | { readonly code: 'coil'; readonly inrush_A: number }
  | { readonly code: 'nearer'; readonly by_m: number }

const RATINGS_VA = [30, 40, 50, 60, 75, 100, 150, 200] as const

/** Volts that the worst coil lacks with all free wire of the thickest size given; 0 or less where it holds. */
function shortfall_V(site: Site, anew: boolean, thickest: Stocked): number {
  const model = new Model(site)
  const grouped = groupsOf(model.powered, anew)
  const found = model.findAll(
    ohmsOf(
      model.powered,
      grouped,
      [thickest],
      grouped.groups.map(() => 0),
    ),
  )
  return Math.max(...found.map((f) => -f.margin_V))
}

/**
 * The single changes that mend an infeasible plan, from the one that touches least: a setting, the transformer, wire,
 * coils, the controller's place.
 */
export function mendsFor(site: Site, anew: boolean): Mend[] {
  const thickest = stockOf(site).at(-1)!
  const mends: Mend[] = []
  const holds = (changed: Site, wire = thickest) => shortfall_V(changed, anew, wire) <= 0
  if (Object.values(site.controllers).some((c) => !c.masterFirst) && holds(asIf(site, { masterFirst: true })))
    mends.push({ code: 'master_first' })
  const fewer = Array.from(
    { length: site.settings.sizing.together - 1 },
    (_, i) => site.settings.sizing.together - 1 - i,
  ).find((together) => holds(asIf(site, { together })))
  if (fewer !== undefined) mends.push({ code: 'together', together: fewer })
  const now_VA = Math.min(
    ...Object.values(site.controllers).map((c) => c.transformer?.rating_VA ?? UNKNOWN_TRANSFORMER_VA),
  )
  const rating_VA = RATINGS_VA.find((va) => va > now_VA && holds(asIf(site, { rating_VA: va })))
  if (rating_VA !== undefined) mends.push({ code: 'transformer', rating_VA })
  const thicker = beyondStock(site).find((s) => holds(site, s))
  if (thicker) mends.push({ code: 'thicker', gauge: gaugeText(thicker.gauge) })
  const drawing = (part: number) =>
    ({
      ...site,
      coilKinds: Object.fromEntries(
        Object.entries(site.coilKinds).map(([id, k]) => [
          id,
          { ...k, inrush_A: k.inrush_A && k.inrush_A * part, holding_A: k.holding_A && k.holding_A * part },
        ]),
      ),
    }) as Site
  const part = largest(0.2, 1, (p) => holds(drawing(p)))
  const most_A = Math.max(0, ...Object.values(site.coilKinds).map((k) => k.inrush_A ?? 0))
  if (part !== null && most_A > 0) mends.push({ code: 'coil', inrush_A: Math.floor(part * most_A * 1000) / 1000 })
  const nearer = largest(-2000, 0, (moved_m) => holds(asIf(site, { moved_m })))
  if (nearer !== null && shortened(site) > -nearer) mends.push({ code: 'nearer', by_m: Math.ceil(-nearer) })
  return mends
}

/** How far the controller can come nearer at all: the longest first stretch. */
const shortened = (site: Site) =>
  Math.max(
    0,
    ...Object.values(site.cables).map((c) => {
      const at = c.stops[1]?.at_m
      return at && 'value' in at ? at.value : 0
    }),
  )

/** The largest figure from low to high that holds, by halving; null where not even the lowest does. */
function largest(low: number, high: number, holds: (x: number) => boolean): number | null {
  if (!holds(low)) return null
  let [good, bad] = [low, high]
  for (let i = 0; i < 16; i++) {
    const middle = (good + bad) / 2
    if (holds(middle)) good = middle
    else bad = middle
  }
  return good
}
