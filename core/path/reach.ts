import { climateOf } from '../circuit'
import { copperFactor, maximum_ohmPerM, type Gauge } from '../quantity'
import { stockOf } from '../sizing'
import type { Site, System } from '../site'

/** How far a path of one size reaches, one way, m; null where it reaches nowhere. */
export interface Reach {
  readonly gauge: Gauge
  readonly reach_m: number | null
}
/** What hangs at the far end: so many decoders in all, and the current of the coils that are on there. */
export interface FarLoad {
  readonly decoders: number
  readonly on: number
  readonly coils_A: number
}

/**
 * How far each size of the stores reaches, everything at the far end, the mains low, the ground hot and the wire as
 * thin as its standard allows: L = (V − V least − R source · I) / (2 · r · I).
 * @returns null where the profile lacks a figure
 */
export function pathReach(site: Site, system: System, { decoders, on, coils_A }: FarLoad): Reach[] | null {
  const { path_V, minimum_V, idle_A, active_A, source_ohm } = system
  if (path_V === null || minimum_V === null || idle_A === null || active_A === null) return null
  const { mainsLow_ratio, hottest_C } = site.settings.sizing
  const amps = Math.max(0, decoders - on) * idle_A + on * active_A + coils_A
  const spare_V = path_V * (1 - mainsLow_ratio) - minimum_V - source_ohm * amps
  const warm = copperFactor(climateOf(site, hottest_C).ground_C)
  return stockOf(site).map(({ gauge }) => {
    const reach_m = spare_V / (2 * maximum_ohmPerM(gauge) * warm * amps)
    return { gauge, reach_m: reach_m > 0 ? reach_m : null }
  })
}
