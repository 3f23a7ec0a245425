import { complex, inverse, LEAST_ohm, type Powered } from '../circuit'
import type { Grouped } from './groups'
import type { Stocked } from './stock'

/** Ohms of every element when each group has the stocked size of its number; the rest as on record. */
export function ohmsOf(
  powered: Powered,
  { groupOf, weight_m }: Grouped,
  stock: readonly Stocked[],
  chosen: readonly number[],
): Float64Array {
  return Float64Array.from(powered.parts, (part, e) =>
    groupOf[e]! < 0 ? part.z.re : weight_m[e]! * stock[chosen[groupOf[e]!]!]!.ohmPerM,
  )
}

/** The powered network with those sizes in it. */
export function sizedPowered(
  powered: Powered,
  grouped: Grouped,
  stock: readonly Stocked[],
  chosen: readonly number[],
): Powered {
  const ohm = ohmsOf(powered, grouped, stock, chosen)
  return {
    ...powered,
    parts: powered.parts.map((part, e) => {
      if (grouped.groupOf[e]! < 0) return part
      const z = complex(Math.max(LEAST_ohm, ohm[e]!))
      return { ...part, z, y: inverse(z) }
    }),
  }
}
