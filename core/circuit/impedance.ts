import { copperFactor } from '../quantity'
import type { CoilKind } from '../site'
import { complex, plus, scaled, times, inverse, type Complex } from './complex'
import { UNKNOWN_COIL_ohm } from './network'

/** Plunger out or in. */
export type Face = 'inrush' | 'holding'
/** Which real part is taken where the sheet gives amperes alone: all of the impedance, or the winding's resistance. */
export type Phase = 'safe' | 'optimistic'
export type Frequency = 0 | 50 | 60

/**
 * Currents of a typical coil at 24 V and 60 Hz, for a coil or a face whose sheet is not on record; per ohm of its
 * winding.
 */
const TYPICAL = {
  inrush_A: 0.4,
  holding_A: 0.23,
  rated_V: 24,
  rated_Hz: 60,
  resistance_ohm: UNKNOWN_COIL_ohm.value,
} as const
/** How well the shorted turns of a coil are coupled to the others. */
export const TURNS_COUPLED = 0.95

/**
 * A coil kind's rated current in one face, A; a typical coil's, scaled to its winding, where the sheet does not say.
 */
export function rated_A(kind: CoilKind | null, face: Face): number {
  const own = face === 'inrush' ? kind?.inrush_A : kind?.holding_A
  const typical = face === 'inrush' ? TYPICAL.inrush_A : TYPICAL.holding_A
  if (own != null) return own
  // A high winding draws less: the ratio of impedance to winding resistance is what coils have in common.
  return kind === null
    ? typical
    : (typical * TYPICAL.resistance_ohm * kind.rated_V) / (kind.resistance_ohm * TYPICAL.rated_V)
}

/**
 * Impedance of a coil at a frequency and a temperature, Ω. |Z| is rated volts over rated amperes; its real part is |Z|
 * times the power factor where the sheet gives one, else |Z| itself (safe) or the winding's resistance (optimistic).
 * The winding's copper warms; the reactance goes with the frequency over the sheet's own. At 0 Hz only the winding is
 * left.
 */
export function coilImpedance(
  kind: CoilKind | null,
  face: Face,
  phase: Phase,
  frequency_Hz: Frequency,
  coil_C: number,
): Complex {
  const winding_ohm = kind?.resistance_ohm ?? TYPICAL.resistance_ohm
  const warmer_ohm = winding_ohm * (copperFactor(coil_C) - 1)
  if (frequency_Hz === 0) return complex(winding_ohm + warmer_ohm)
  const whole_ohm = (kind?.rated_V ?? TYPICAL.rated_V) / rated_A(kind, face)
  const factor = face === 'inrush' ? kind?.inrush_pf : kind?.holding_pf
  const real_ohm =
    factor != null ? Math.max(winding_ohm, whole_ohm * factor) : phase === 'safe' ? whole_ohm : winding_ohm
  const reactance_ohm = Math.sqrt(Math.max(0, whole_ohm ** 2 - real_ohm ** 2))
  return complex(real_ohm + warmer_ohm, (reactance_ohm * frequency_Hz) / (kind?.rated_Hz ?? TYPICAL.rated_Hz))
}

/**
 * A coil with a part of its turns shorted: the rest in series, R(1 − f) and X(1 − f)², coupled to a closed loop of
 * R·f and X·f². At 0 Hz the loop is not felt.
 */
export function partlyShorted(coil: Complex, fraction: number): Complex {
  const rest = complex(coil.re * (1 - fraction), coil.im * (1 - fraction) ** 2)
  if (coil.im === 0 || fraction === 0) return rest
  const mutual = complex(0, TURNS_COUPLED * coil.im * fraction * (1 - fraction))
  return plus(
    rest,
    scaled(times(times(mutual, mutual), inverse(complex(coil.re * fraction, coil.im * fraction ** 2))), -1),
  )
}
