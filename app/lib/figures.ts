import { celsius, fahrenheit, type Units } from '../../core/quantity'

/** A number field's text as a number within bounds, or null. A decimal comma is a point. */
export function figureIn(text: string | number, low: number, high: number): number | null {
  const plain = String(text).trim().replace(',', '.')
  const value = plain === '' ? NaN : Number(plain)
  return value >= low && value <= high ? value : null
}

/** A temperature as its field shows it, and back; stored in °C. */
export const temperatureShown = (at_C: number, units: Units): string =>
  String(Math.round((units.temperature === 'F' ? fahrenheit(at_C) : at_C) * 10) / 10)
export const temperatureMeant = (shown: number, units: Units): number =>
  units.temperature === 'F' ? celsius(shown) : shown
