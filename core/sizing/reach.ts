import { copperFactor } from '../quantity'
import type { Site } from '../site'
import type { Load } from './load'
import { Model } from './model'
import { stockOf, type Stocked } from './stock'

/** How far a size carries, lead and common alike: metres for one, two, … valves started at once at the far end. */
export interface ReachRow {
  readonly stocked: Stocked
  readonly reach_m: readonly number[]
}
export interface ReachTable {
  readonly rows: readonly ReachRow[]
  /**
   * What the table holds for: the thirstiest station coil, what comes on with it, volts at C and the least at the
   * coil.
   */
  readonly station_A: number
  readonly masters_A: number
  readonly open_V: number
  readonly source_ohm: number
  readonly lost_V: readonly number[]
  readonly hottest_C: number
}

/** Valves at once that the table has columns for. */
const COLUMNS = 3

/**
 * The longest run of every stocked size for the property's own figures: the thirstiest station coil at inrush, n of
 * them at the far end on one lead, with the master valve and relay taken as there too. Length = volts that may be
 * lost / (Ω/m · (lead current + common current)). Null for a property with no station that is wired.
 */
export function reachTable(site: Site): ReachTable | null {
  const model = new Model(site)
  const starts = model.plants.flatMap((p) => p.starts.map((start) => ({ start, controller: p.controller })))
  const sum = (loads: readonly Load[]) => loads.reduce((total, l) => total + l.current_A, 0)
  const worst = starts.reduce<(typeof starts)[number] | null>(
    (a, b) =>
      a === null || sum(b.start.starting) + sum(b.start.masters) > sum(a.start.starting) + sum(a.start.masters) ? b : a,
    null,
  )
  if (!worst) return null
  const { open_V, source_ohm } = model.source(worst.controller)
  const [station_A, masters_A] = [sum(worst.start.starting), sum(worst.start.masters)]
  const coil = worst.start.starting.reduce((a, b) => (b.minimum_V > a.minimum_V ? b : a))
  const warm = copperFactor(site.settings.sizing.hottest_C)
  const lost_V = Array.from({ length: COLUMNS }, (_, i) =>
    Math.max(0, model.allowed_V(coil, open_V - source_ohm * (station_A * (i + 1) + masters_A))),
  )
  const rows = stockOf(site).map((stocked) => ({
    stocked,
    reach_m: lost_V.map((volts, i) =>
      Math.floor(volts / (stocked.ohmPerM * warm * (2 * station_A * (i + 1) + masters_A))),
    ),
  }))
  return { rows, station_A, masters_A, open_V, source_ohm, lost_V, hottest_C: site.settings.sizing.hottest_C }
}

/** The thinnest stocked size that the table lets run so far; null beyond its longest. */
export const sizeForReach = (table: ReachTable, length_m: number): Stocked | null =>
  table.rows.find((r) => r.reach_m[0]! >= length_m)?.stocked ?? null
