import { gaugeSchema, type Gauge } from './gauge-schema'

/** Resistivity of annealed copper at 20 °C (IACS 100 %), Ω·mm²/m. */
export const COPPER_OHM_MM2_PER_M = 0.017241

/** Maximum resistance of solid class 1 copper at 20 °C, Ω/km by nominal mm² (IEC 60228). */
const METRIC_MAXIMUM_OHM_PER_KM: Readonly<Record<string, number>> = {
  0.5: 36.0,
  0.75: 24.5,
  1: 18.1,
  1.5: 12.1,
  2.5: 7.41,
  4: 4.61,
  6: 3.08,
}

/** Cross-section in mm². AWG by its defining diameter, 0.127·92^((36−n)/39) mm (ASTM B258). */
export function area_mm2(gauge: Gauge): number {
  if ('area_mm2' in gauge) return gauge.area_mm2
  const diameter_mm = 0.127 * 92 ** ((36 - gauge.awg) / 39)
  return (Math.PI / 4) * diameter_mm ** 2
}

/**
 * Nominal resistance of one conductor at 20 °C, Ω/m: resistivity over cross-section. What a meter is expected to
 * read.
 */
export function nominal_ohmPerM(gauge: Gauge): number {
  return COPPER_OHM_MM2_PER_M / area_mm2(gauge)
}

/**
 * Largest resistance the standard allows at 20 °C, Ω/m: the upper edge of a reading.
 * For AWG, and metric sizes that the table does not list, this is the nominal one.
 */
export function maximum_ohmPerM(gauge: Gauge): number {
  const listed = 'area_mm2' in gauge ? METRIC_MAXIMUM_OHM_PER_KM[String(gauge.area_mm2)] : undefined
  return listed === undefined ? nominal_ohmPerM(gauge) : Math.max(listed / 1000, nominal_ohmPerM(gauge))
}

/** "18 AWG" or "1.5 mm²": the size as the trade writes it. */
export function gaugeText(gauge: Gauge): string {
  return 'awg' in gauge ? `${gauge.awg} AWG` : `${gauge.area_mm2} mm²`
}

const SIZE = /^#?\s*(awg)?\s*(\d+(?:[.,]\d+)?)\s*(awg|mm\s*(?:2|\u00b2)|sq\.?\s*mm)?$/i

/**
 * Reads a conductor size: `18`, `18 AWG`, `1.5`, `1.5 mm²`; a bare figure is of the given market. Null where it is
 * none.
 */
export function parseGauge(text: string, market: 'awg' | 'metric'): Gauge | null {
  const match = SIZE.exec(text.trim())
  if (!match) return null
  const figure = Number(match[2]!.replace(',', '.'))
  const awg =
    match[1] !== undefined || match[3]?.toLowerCase() === 'awg' || (match[3] === undefined && market === 'awg')
  const gauge = gaugeSchema.safeParse(awg ? { awg: figure } : { area_mm2: figure })
  return gauge.success ? gauge.data : null
}
