import type { LengthUnit } from './length'

/** Litres in one US gallon, exactly: 231 cubic inches. */
export const L_PER_GAL = 3.785411784

/** A flow in the unit that goes with a property’s lengths: gallons a minute beside feet, litres beside metres. */
export const flowIn = (flow_Lmin: number, unit: LengthUnit): number =>
  unit === 'ft' ? flow_Lmin / L_PER_GAL : flow_Lmin
export const toLitresPerMinute = (flow: number, unit: LengthUnit): number => (unit === 'ft' ? flow * L_PER_GAL : flow)
export const flowUnit = (unit: LengthUnit): 'gal/min' | 'L/min' => (unit === 'ft' ? 'gal/min' : 'L/min')
