import { area_mm2, maximum_ohmPerM, type Gauge } from '../quantity'
import type { Site } from '../site'

/** A size that can be had: its most ohms a metre at 20 °C and the price of a metre of one conductor. */
export interface Stocked {
  readonly gauge: Gauge
  readonly ohmPerM: number
  readonly cents_per_m: number
}

/** Mass of copper per metre and mm². */
const COPPER_G_PER_M_MM2 = 8.96
/** Price of the copper in a conductor where the stores' own is not known: hundredths a gram. */
const COPPER_CENTS_PER_G = 1.2

const USUAL: Readonly<Record<Site['settings']['market'], readonly Gauge[]>> = {
  awg: [18, 16, 14, 12, 10].map((awg) => ({ awg })),
  metric: [0.75, 1, 1.5, 2.5, 4].map((area) => ({ area_mm2: area })),
}

/** Sizes beyond the stores that a plan may be mended with, thinnest first. */
const MADE: typeof USUAL = {
  awg: [20, 18, 16, 14, 12, 10, 8, 6].map((awg) => ({ awg })),
  metric: [0.5, 0.75, 1, 1.5, 2.5, 4, 6].map((area) => ({ area_mm2: area })),
}

const stockedAs = (gauge: Gauge, cents_per_m = copperCents_per_m(gauge)): Stocked => ({
  gauge,
  ohmPerM: maximum_ohmPerM(gauge),
  cents_per_m,
})

/** The price of the copper alone, to a tenth of a hundredth. */
export const copperCents_per_m = (gauge: Gauge): number =>
  Math.round(area_mm2(gauge) * COPPER_G_PER_M_MM2 * COPPER_CENTS_PER_G * 10) / 10

/** The property's stock, else the market's usual sizes at the price of their copper; thinnest first. */
export function stockOf({ settings: { material, market } }: Site): Stocked[] {
  const own = material.stock.map((s) => stockedAs(s.gauge, s.cents_per_m))
  return (own.length > 0 ? own : USUAL[market].map((g) => stockedAs(g))).sort((a, b) => b.ohmPerM - a.ohmPerM)
}

/** Sizes thicker than all that is stocked, thinnest first. */
export function beyondStock(site: Site): Stocked[] {
  const thickest = stockOf(site).at(-1)!
  return MADE[site.settings.market].map((g) => stockedAs(g)).filter((s) => s.ohmPerM < thickest.ohmPerM * 0.999)
}
