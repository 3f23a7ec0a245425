import type { Meter } from '../../record'
import type { DeviceId } from '../../site'

/** What a test would show if some faults were there. Spreads are one standard deviation. */
export type Prediction =
  /**
   * `noise`: one deviation of what the meter and the ground blur, whatever it shows; `ratio`: and as a part of what
   * it shows. `coils`: by how much the reading moves when a coil is 100 % off its sheet; `figures`: when a fault's
   * figure is one deviation of its cell off.
   */
  | {
      readonly kind: 'ohms'
      readonly mean: number
      readonly noise: number
      readonly ratio: number
      readonly coils: readonly (readonly [DeviceId, number])[]
      readonly figures: readonly number[]
    }
  | { readonly kind: 'open' }
  /** Insulation to earth without a leak: whatever the meter can still show. */
  | { readonly kind: 'insulated' }
  | { readonly kind: 'volts'; readonly mean: number; readonly sd: number; readonly fed: boolean }
  /** How likely the answer is yes: heard, flows, sound, lit. */
  | { readonly kind: 'yes'; readonly p: number }
  | { readonly kind: 'lamps'; readonly good: number; readonly open: number; readonly short: number }
  /** The master valve opens with `master`; then each of these waters by itself. */
  | { readonly kind: 'waters'; readonly master: number; readonly valves: readonly (readonly [DeviceId, number])[] }
  | { readonly kind: 'tone'; readonly lost_m: number | null; readonly sd_m: number }
  /** Ohms or volts of a thread on which something is wrong that is not listed. */
  | { readonly kind: 'anything' }
  /** A joint that comes and goes: ill with `p`, else well. */
  | { readonly kind: 'either'; readonly p: number; readonly well: Prediction; readonly ill: Prediction }

/** A limit that is met by a truncated normal at two deviations leaves this much of a deviation. */
export const TRUNCATED = 0.88
export const half = (limit: number) => (limit / 2) * TRUNCATED
/** Mains wander by 3 %; a coil under power deviates as its winding does. */
export const MAINS_ratio = half(0.03)
/** A meter shows a tenth. */
const TENTH = 0.1 / Math.sqrt(12)

/**
 * One deviation of what a meter shows about a true figure beside its share of it, with what else is known to blur it.
 */
export const meterSpread = (ohm: number, meter: Meter, other_ohm: number): number =>
  Math.hypot(half(meter.offset_ohm), ohm < 1000 ? TENTH : 0, other_ohm, 0.015)

/**
 * One deviation of a reading that shows this, Ω. A fault of wide figures is weighed with what was read, which its
 * middle may be far from.
 */
export const blurAt = (seen: Extract<Prediction, { kind: 'ohms' }>, ohm: number): number =>
  Math.hypot(seen.noise, seen.ratio * ohm)
