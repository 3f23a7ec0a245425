import { inUnit, type LengthUnit } from './length'
import { ohmsWithUnit } from './ohms'
import { fahrenheit } from './temperature'

/** The units a property is read in; everything is stored in metres and °C. */
export interface Units {
  readonly length: LengthUnit
  readonly temperature: 'C' | 'F'
}

/**
 * Prints a figure in the user's units by the ending of its name: `_m`, `_C`, `_ohm`, `_ratio`. Others stay as they
 * are.
 */
export function printFigure(name: string, value: string | number, units: Units): string {
  if (typeof value === 'string') return value
  if (name.endsWith('_m')) return lengthText(value, units)
  if (name.endsWith('_C')) return temperatureText(value, units)
  if (name.endsWith('_ohm')) return ohmsWithUnit(value)
  if (name === 'p_ratio') return chanceText(value)
  if (name.endsWith('_ratio')) return `${Math.round(value * 100)} %`
  return String(value)
}

export function lengthText(length_m: number, units: Units): string {
  const length = inUnit(length_m, units.length)
  return `${length < 10 ? Number(length.toFixed(1)) : Math.round(length)} ${units.length}`
}

/** A length where its decimals count: depths, and places along a wire. */
export const fineLengthText = (length_m: number, units: Units, digits = 2): string =>
  `${inUnit(length_m, units.length).toFixed(digits)} ${units.length}`

/** An area in the square of the user's unit of length. */
export function areaText(area_m2: number, units: Units): string {
  const area = area_m2 * inUnit(1, units.length) ** 2
  return `${area < 10 ? area.toFixed(1) : Math.round(area)} ${units.length}²`
}

export function temperatureText(at_C: number, units: Units): string {
  return units.temperature === 'F' ? `${Math.round(fahrenheit(at_C))} °F` : `${Math.round(at_C)} °C`
}

/** A likelihood as people read it: what is next to certain or next to nothing is not written as if it were. */
export const chanceText = (p: number): string =>
  `${p > 0.995 ? '> 99' : p < 0.01 ? '< 1' : String(Math.round(p * 100))} %`
