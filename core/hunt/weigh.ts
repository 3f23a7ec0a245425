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
/** A slip shows anything up to this, Ω. */
const SLIP_ohm = 200
/** Another zone is named than the one that waters once in so many: eyes on a lawn slip more rarely than clips. */
const MISSEEN = 1e-4
/** What a sound conductor's insulation shows: below a megohm once in so many. */
const WEAK_INSULATION = 0.02

/** A reading in ohms with what was foreseen of it: to be weighed together with the others of its coils. */
export interface Weighed {
  readonly ohm: number
  readonly seen: Extract<Prediction, { kind: 'ohms' }>
  readonly offset: number
}

/**
 * Log-likelihood of a reading that stands alone, or the reading in ohms that must be weighed with others and the log
 * so far.
 */
export function weighAlone(
  seen: Prediction,
  value: ReadingValue,
  supply_V: { read: number | null; nominal: number },
): { log: number; ohms: Extract<Prediction, { kind: 'ohms' }> | null } {
  const alone = (log: number) => ({ log: Math.max(log, Math.log(SLIP) - 6), ohms: null })
  switch (seen.kind) {
    case 'either': {
      const [ill, well] = [weighAlone(seen.ill, value, supply_V), weighAlone(seen.well, value, supply_V)]
      if (well.ohms)
        return value.kind === 'open'
          ? { log: Math.log(seen.p) + ill.log, ohms: null }
          : { log: Math.log(1 - seen.p) + well.log, ohms: well.ohms }
      return { log: logSum([Math.log(seen.p) + ill.log, Math.log(1 - seen.p) + well.log]), ohms: null }
    }
    case 'ohms':
      return value.kind === 'ohm' ? { log: 0, ohms: seen } : { log: Math.log(SLIP), ohms: null }
    case 'open':
      return { log: value.kind === 'open' ? Math.log(1 - SLIP) : Math.log(SLIP / SLIP_ohm), ohms: null }
    case 'insulated': {
      const ohm = value.kind === 'ohm' ? value.ohm : Infinity
      // Below a megohm anything is as likely per decade as above it is per factor.
      return {
        log: ohm >= 1e6 ? Math.log(1 - WEAK_INSULATION) : Math.log(WEAK_INSULATION / 5 / Math.LN10 / Math.max(ohm, 10)),
        ohms: null,
      }
    }
    case 'volts': {
      if (value.kind !== 'volt') return alone(0)
      const known = supply_V.read !== null && supply_V.read > 5 && seen.fed
      const mean = known ? (seen.mean * supply_V.read!) / supply_V.nominal : seen.mean
      const sd = known ? Math.hypot(0.3, Math.max(0, seen.sd - 0.0132 * seen.mean)) : seen.sd
      return alone(logSum([Math.log(1 - SLIP) + logNormal(value.volt - mean, sd), Math.log(SLIP / 30)]))
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
      return alone(yes === null ? 0 : Math.log(yes ? seen.p : 1 - seen.p)) // each with its own chance of being wrong
    }
    case 'lamps':
      return alone(
        value.kind === 'lamp'
          ? Math.log(clamped(value.lamp === 'short' ? seen.short : value.lamp === 'open' ? seen.open : seen.good))
          : 0,
      )
    case 'waters': {
      if (value.kind !== 'waters') return alone(0)
      const watered = new Set(value.valves)
      const known = new Set(seen.valves.map(([d]) => d))
      const strangers = value.valves.filter((d) => !known.has(d)).length
      const open =
        seen.valves.reduce((p, [d, q]) => p * clamped(watered.has(d) ? q : 1 - q, MISSEEN), 1) * MISSEEN ** strangers
      const dry = value.valves.length === 0 ? 1 : MISSEEN
      return alone(Math.log(seen.master * open + (1 - seen.master) * dry))
    }
    case 'tone': {
      if (value.kind !== 'tone') return alone(0)
      if (seen.lost_m === null || value.lost_m === null)
        return alone(Math.log(seen.lost_m === value.lost_m ? 0.97 : 0.03))
      return alone(Math.log(0.97) + logNormal(value.lost_m - seen.lost_m, seen.sd_m))
    }
  }
}

const clamped = (p: number, least = SLIP): number => Math.min(1 - least, Math.max(least, p))

/**
 * Log-likelihood of readings in ohms that share coils and the figures of one hypothesis, all of them normal: a coil
 * deviates alike in every reading it is part of, and a fault has one severity. Readings linked by a coil are taken
 * together by their covariance (Cholesky); the figures, which all groups share, are integrated out afterwards.
 */
export function weighTogether(readings: readonly Weighed[], coils: CoilPriors): number {
  const figures = readings.reduce((most, r) => Math.max(most, r.offset + r.seen.figures.length), 0)
  const [a, b] = [new Float64Array(figures * figures), new Float64Array(figures)]
  let log = 0
  for (const group of groupsOf(readings)) {
    const n = group.length
    const cov = Array.from({ length: n }, () => new Float64Array(n))
    const rows: Float64Array[] = [new Float64Array(n), ...Array.from({ length: figures }, () => new Float64Array(n))]
    group.forEach((r, i) => {
      cov[i]![i]! += blurAt(r.seen, r.ohm) ** 2
      rows[0]![i] = r.ohm - r.seen.mean
      for (const [d, s] of r.seen.coils) {
        const prior = coils(d)
        rows[0]![i]! -= s * prior.mean
        for (let j = 0; j <= i; j++)
          for (const [e, t] of group[j]!.seen.coils)
            if (e === d) {
              cov[i]![j]! += s * t * prior.sd ** 2
              if (i !== j) cov[j]![i]! += s * t * prior.sd ** 2
            }
      }
      r.seen.figures.forEach((g, k) => {
        rows[1 + r.offset + k]![i] = g
      })
    })
    // L·Lᵀ, and the rows taken forward: products are then plain dot products.
    let determinant = 0
    for (let i = 0; i < n; i++) {
      for (let j = 0; j <= i; j++) {
        let sum = cov[i]![j]!
        for (let k = 0; k < j; k++) sum -= cov[i]![k]! * cov[j]![k]!
        if (i === j) {
          cov[i]![i] = Math.sqrt(Math.max(sum, 1e-12))
          determinant += Math.log(cov[i]![i]!)
        } else cov[i]![j] = sum / cov[j]![j]!
      }
      for (const row of rows) {
        let sum = row[i]!
        for (let k = 0; k < i; k++) sum -= cov[i]![k]! * row[k]!
        row[i] = sum / cov[i]![i]!
      }
    }
    const dot = (x: Float64Array, y: Float64Array) => {
      let s = 0
      for (let i = 0; i < n; i++) s += x[i]! * y[i]!
      return s
    }
    const fit = -0.5 * dot(rows[0]!, rows[0]!) - determinant - n * 0.5 * Math.log(2 * Math.PI)
    log += figures === 0 ? orSlipped(fit, n) : fit
    for (let k = 0; k < figures; k++) {
      b[k]! += dot(rows[1 + k]!, rows[0]!)
      for (let m = 0; m < figures; m++) a[k * figures + m]! += dot(rows[1 + k]!, rows[1 + m]!)
    }
  }
  return figures === 0 ? log : orSlipped(log + marginalizeNuisance(a, b, figures), readings.length)
}

/** Readings that fit nothing may have slipped, all of them. */
const orSlipped = (log: number, readings: number): number => logSum([log, readings * Math.log(SLIP / SLIP_ohm)])

/** Integrates unit-normal figures out of a quadratic: ½·bᵀ(I + A)⁻¹b − ½·log|I + A|. */
function marginalizeNuisance(a: Float64Array, b: Float64Array, n: number): number {
  const m = a.slice()
  for (let i = 0; i < n; i++) m[i * n + i]! += 1
  const x = b.slice()
  let [log, gain] = [0, 0]
  for (let k = 0; k < n; k++) {
    const pivot = m[k * n + k]!
    log += Math.log(pivot)
    gain += x[k]! ** 2 / pivot
    for (let r = k + 1; r < n; r++) {
      const f = m[r * n + k]! / pivot
      for (let c = k; c < n; c++) m[r * n + c]! -= f * m[k * n + c]!
      x[r]! -= f * x[k]!
    }
  }
  return 0.5 * gain - 0.5 * log
}

function groupsOf(readings: readonly Weighed[]): Weighed[][] {
  const groups: { devices: Set<DeviceId>; of: Weighed[] }[] = []
  for (const r of readings) {
    const mine = groups.filter((g) => r.seen.coils.some(([d]) => g.devices.has(d)))
    const group = mine[0] ?? { devices: new Set<DeviceId>(), of: [] }
    if (!mine[0]) groups.push(group)
    for (const other of mine.slice(1)) {
      for (const d of other.devices) group.devices.add(d)
      group.of.push(...other.of)
      groups.splice(groups.indexOf(other), 1)
    }
    for (const [d] of r.seen.coils) group.devices.add(d)
    group.of.push(r)
  }
  return groups.map((g) => g.of)
}

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
