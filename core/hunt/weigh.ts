import type { ReadingValue } from '../record'
import type { DeviceId } from '../site'
import { blurAt, SOIL_MOST_ohm, TRUNCATED, type Prediction } from './predict'
import { logNormal, logSum } from './normal'

/**
 * What a coil is known to deviate from its sheet, as a part of it: from an earlier good reading, or its tolerance
 * alone.
 */
export interface CoilPrior {
  readonly mean: number
  readonly sd: number
}
export type CoilPriors = (device: DeviceId) => CoilPrior

/** A reading slips once in so many: the wrong screw, a clip that did not bite. */
const SLIP = 1e-3
/** A slip shows any figure, about as likely in every factor of two from some ohms to ten megohms. */
const [SLIP_FROM_ohm, SLIP_NATS] = [10, Math.log(1e7 / 10)]
/** The log-density of a figure that may be anything. */
const anyOhm = (ohm: number): number => -Math.log(ohm + SLIP_FROM_ohm) - Math.log(SLIP_NATS)
/** The log of how often a reading slips; one that was made again and gave the same has slipped as many times. */
const slips = (times: number): number => times * Math.log(SLIP)
/** The log-density of a figure where its reading slipped. */
export const slipped = (ohm: number, times: number): number => slips(times) + anyOhm(ohm)
/** A thread on which something is wrong that is not listed reads open so often. */
const UNLISTED_OPEN = 0.2
/** Volts that may be anything lie evenly below this. */
const MOST_V = 30
/** Another zone is named than the one that waters once in so many: eyes on a lawn slip more rarely than clips. */
const MISSEEN = 1e-4
/** What a sound conductor's insulation shows: below a megohm once in so many. */
const WEAK_INSULATION = 0.02
/** Below this it is no damp insulation any more: something leaks, or the reading slipped. */
const DAMP_ohm = 100_000

/** How a reading by itself fits what a test would show, nats. */
interface Alone {
  readonly log: number
  /** The same if it has not slipped. */
  readonly straight: number
  /** A reading in ohms, that must be weighed with others: the logs are those so far. */
  readonly ohms: Extract<Prediction, { kind: 'ohms' }> | null
}

const whole = (log: number): Alone => ({ log, straight: log, ohms: null })
const slip = (log: number): Alone => ({ log, straight: -Infinity, ohms: null })
/** One that may have slipped all the same, so often it was made. */
const notBelow = (times: number, log: number): Alone => whole(Math.max(log, slips(times) - 6))

/**
 * Log-likelihood of a reading that stands alone. `times`: how often the test has given the same, one after the other.
 */
export function weighAlone(
  seen: Prediction,
  value: ReadingValue,
  supply_V: { read: number | null; nominal: number },
  times = 1,
): Alone {
  switch (seen.kind) {
    case 'either': {
      const [ill, well] = [seen.ill, seen.well].map((s) => weighAlone(s, value, supply_V, times)) as [Alone, Alone]
      const [isIll, isWell] = [Math.log(seen.p), Math.log(1 - seen.p)]
      if (well.ohms)
        return value.kind === 'open'
          ? { ...ill, log: isIll + ill.log, straight: isIll + ill.straight }
          : { ...well, log: isWell + well.log, straight: isWell + well.straight }
      return {
        log: logSum([isIll + ill.log, isWell + well.log]),
        straight: logSum([isIll + ill.straight, isWell + well.straight]),
        ohms: null,
      }
    }
    case 'ohms':
      return value.kind === 'ohm' ? { ...whole(0), ohms: seen } : slip(slips(times))
    case 'open':
      return value.kind === 'ohm' ? slip(slipped(value.ohm, times)) : whole(Math.log(1 - SLIP))
    case 'anything':
      return whole(
        value.kind === 'ohm'
          ? Math.log(1 - UNLISTED_OPEN) + anyOhm(value.ohm)
          : Math.log(value.kind === 'open' ? UNLISTED_OPEN : 1 / MOST_V),
      )
    case 'insulated': {
      const ohm = value.kind === 'ohm' ? value.ohm : Infinity
      // Below a megohm anything is as likely per decade as above it is per factor.
      const log = Math.log(ohm >= 1e6 ? 1 - WEAK_INSULATION : WEAK_INSULATION / 5 / Math.LN10 / Math.max(ohm, 10))
      return ohm < DAMP_ohm ? slip(log) : whole(log)
    }
    case 'volts': {
      if (value.kind !== 'volt') return notBelow(times, 0)
      const known = supply_V.read !== null && supply_V.read > 5 && seen.fed
      const mean = known ? (seen.mean * supply_V.read!) / supply_V.nominal : seen.mean
      const sd = known ? Math.hypot(0.3, Math.max(0, seen.sd - 0.0132 * seen.mean)) : seen.sd
      const straight = Math.log(1 - SLIP) + logNormal(value.volt - mean, sd)
      return { ...notBelow(times, logSum([straight, slips(times) - Math.log(MOST_V)])), straight }
    }
    case 'yes': {
      const yes =
        value.kind === 'heard'
          ? value.heard
          : value.kind === 'flows'
            ? value.flows
            : value.kind === 'looked'
              ? value.sound
              : value.kind === 'lamp'
                ? value.lamp === 'lit'
                : value.kind === 'open'
                  ? false
                  : value.kind === 'ohm'
                    ? value.ohm < SOIL_MOST_ohm
                    : null
      // Each has its own chance of being wrong.
      return notBelow(times, yes === null ? 0 : Math.log(yes ? seen.p : 1 - seen.p))
    }
    case 'lamps':
      return notBelow(
        times,
        value.kind === 'lamp'
          ? Math.log(clamped(value.lamp === 'short' ? seen.short : value.lamp === 'open' ? seen.open : seen.good))
          : 0,
      )
    case 'waters': {
      if (value.kind !== 'waters') return notBelow(times, 0)
      const watered = new Set(value.valves)
      const known = new Set(seen.valves.map(([d]) => d))
      const strangers = value.valves.filter((d) => !known.has(d)).length
      const open =
        seen.valves.reduce((p, [d, q]) => p * clamped(watered.has(d) ? q : 1 - q, MISSEEN), 1) * MISSEEN ** strangers
      const dry = value.valves.length === 0 ? 1 : MISSEEN
      return notBelow(times, Math.log(seen.master * open + (1 - seen.master) * dry))
    }
    case 'tone': {
      if (value.kind !== 'tone') return notBelow(times, 0)
      if (seen.lost_m === null || value.lost_m === null)
        return notBelow(times, Math.log(seen.lost_m === value.lost_m ? 0.97 : 0.03))
      return notBelow(times, Math.log(0.97) + logNormal(value.lost_m - seen.lost_m, seen.sd_m))
    }
  }
}

const clamped = (p: number, least = SLIP): number => Math.min(1 - least, Math.max(least, p))

/**
 * A coil's own drift from year to year and the ground's temperature, which is never known to a kelvin or two, as a
 * part of it.
 */
const DRIFT = 0.006

/**
 * What an earlier good reading says of a coil: the rest of its sum after what the record predicts, against the noise
 * of both.
 */
export function coilPriorFrom(
  seen: Extract<Prediction, { kind: 'ohms' }>,
  device: DeviceId,
  ohm: number,
  tolerance_ratio: number,
): CoilPrior {
  const own = (tolerance_ratio / 2) * TRUNCATED
  const s = seen.coils.find(([d]) => d === device)?.[1]
  if (s === undefined) return { mean: 0, sd: own }
  const others = seen.coils.reduce((v, [d, t]) => (d === device ? v : v + (t * own) ** 2), 0)
  const gain = (s * own ** 2) / (s ** 2 * own ** 2 + blurAt(seen, ohm) ** 2 + others)
  return { mean: gain * (ohm - seen.mean), sd: Math.hypot(own * Math.sqrt(Math.max(1e-6, 1 - gain * s)), DRIFT) }
}
