/** Temperature coefficient of copper's resistance, per K from 20 °C (IEC 60028). */
export const COPPER_PER_K = 0.00393

/** Factor on a copper resistance known at 20 °C when the copper is at `at_C`. */
export function copperFactor(at_C: number): number {
  return 1 + COPPER_PER_K * (at_C - 20)
}

export const fahrenheit = (at_C: number): number => at_C * 1.8 + 32
export const celsius = (at_F: number): number => (at_F - 32) / 1.8
