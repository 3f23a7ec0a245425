/** Metres in one international foot, exactly. */
export const M_PER_FT = 0.3048

export type LengthUnit = 'm' | 'ft'

export const inUnit = (length_m: number, unit: LengthUnit): number => (unit === 'ft' ? length_m / M_PER_FT : length_m)
export const toMetres = (length: number, unit: LengthUnit): number => (unit === 'ft' ? length * M_PER_FT : length)
