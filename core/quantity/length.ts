/** Metres in one international foot, exactly. */
export const M_PER_FT = 0.3048

export type LengthUnit = 'm' | 'ft'

export const inUnit = (length_m: number, unit: LengthUnit): number => (unit === 'ft' ? length_m / M_PER_FT : length_m)
export const toMetres = (length: number, unit: LengthUnit): number => (unit === 'ft' ? length * M_PER_FT : length)

const LENGTH = /^(\d+(?:[.,]\d+)?)\s*(m|metres?|meters?|ft|feet|foot|['\u2032])?$/i

/**
 * Reads a length as people write it, `46`, `46 m`, `150 ft`, `150'`; a bare figure is in the given unit. Metres, or
 * null where it is not one.
 */
export function parseLength(text: string, unit: LengthUnit): number | null {
  const match = LENGTH.exec(text.trim())
  if (!match) return null
  const written = match[2]?.toLowerCase()
  return toMetres(
    Number(match[1]!.replace(',', '.')),
    written === undefined ? unit : written.startsWith('m') ? 'm' : 'ft',
  )
}
