import type { ReadingValue } from '../../record'
import { logNormal, logSum } from '../normal'
import { blurAt, type Prediction } from '../predict'
import { slipped, weighAlone, type CoilPriors } from '../weigh'

/** Readings that fit within so many nats of the best that they could have not slipped. */
const FITS_NATS = 4
/** A slip that lies so far below none is not followed to a second, nats. */
const SLIPS_NATS = 7
/** More readings of one thread than these never slipped but all together. */
const MOST_SLIPPED = 3

type Ohms = Extract<Prediction, { kind: 'ohms' }>

/** A reading as it was taken beside what it would be under a hypothesis; null where that says nothing of it. */
export interface Weighable {
  readonly value: ReadingValue
  /** How often the test has given it, one after the other. */
  readonly times?: number
  readonly seen: Prediction | null
  /** By figure of `seen`: its number among those of the hypothesis, the same in every reading. */
  readonly slots: readonly number[]
}
interface Figure {
  readonly ohm: number
  readonly times: number
  readonly seen: Ohms
  readonly slots: readonly number[]
}

/** How well readings fit a hypothesis, nats, and how well they would if each showed just what it foresees. */
export interface Fit {
  readonly log: number
  readonly best: number
}
/** `straight`: how well they fit if none of them slipped. */
export interface WholeFit extends Fit {
  readonly straight: number
}

/**
 * Log-likelihood of readings that may share coils and a fault's figures. Readings in ohms are one normal: its
 * covariance is what each is blurred by, the coils' deviations and the figures' spreads. Each of them may have slipped.
 */
export function fitOf(
  readings: readonly Weighable[],
  supply_V: { readonly read: number | null; readonly nominal: number },
  coils: CoilPriors,
): WholeFit {
  let [log, straight, best] = [0, 0, 0]
  const figures: Figure[] = []
  for (const { value, times = 1, seen, slots } of readings) {
    if (seen === null) continue
    const alone = weighAlone(seen, value, supply_V, times)
    log += alone.log
    straight += alone.straight
    if (alone.ohms && value.kind === 'ohm') figures.push({ ohm: value.ohm, times, seen: alone.ohms, slots })
    // What may be anything is foreseen as well as it can be.
    else best += seen.kind === 'anything' ? alone.log : mostOf(value, alone.log)
  }
  if (figures.length === 0) return { log, straight, best }
  const together = orSlipped(figures, coils)
  return { log: log + together.log, straight: straight + together.straight, best: best + together.best }
}

/** How far figures lie off what was foreseen, and the covariance of that. */
function covarianceOf(figures: readonly Figure[], coils: CoilPriors) {
  const n = figures.length
  const square = new Float64Array(n * n)
  const off = Float64Array.from(
    figures,
    ({ ohm, seen }) => ohm - seen.mean - seen.coils.reduce((s, [d, c]) => s + c * coils(d).mean, 0),
  )
  figures.forEach(({ ohm, seen }, i) => {
    for (let j = 0; j <= i; j++) square[i * n + j] = covariance(figures[i]!, figures[j]!, coils)
    square[i * n + i]! += blurAt(seen, ohm) ** 2
  })
  return { off, square }
}

/** What a reading that stands alone could be worth at most; never less than it is. */
const mostOf = (value: ReadingValue, log: number): number =>
  Math.max(
    log,
    value.kind === 'volt' ? logNormal(0, 0.3) : value.kind === 'ohm' ? logNormal(0, meterBlur_ohm(value.ohm)) : 0,
  )
/** About what a meter's blur is at so many ohms, where nothing was foreseen in ohms. */
const meterBlur_ohm = (ohm: number): number => 0.1 + 0.02 * ohm

/**
 * Figures as they fit together, or without those that fit worst: one, two … as far as they may have slipped, or all.
 */
function orSlipped(figures: readonly Figure[], coils: CoilPriors): WholeFit {
  const whole = normalOf(figures, coils)
  const { fit } = whole
  const straight = fit.log
  if (fit.log > fit.best - FITS_NATS) return { ...fit, straight }
  const logs = [fit.log, figures.reduce((s, f) => s + slipped(f.ohm, f.times), 0)]
  let [left, now, lost] = [figures, whole, 0]
  for (let n = 0; n < MOST_SLIPPED && left.length > 1; n++) {
    const rest = now.without()
    left.forEach((f, i) => logs.push(lost + slipped(f.ohm, f.times) + rest[i]!))
    if (logs.slice(-left.length).every((log) => log < fit.log - SLIPS_NATS)) break
    const worst = rest.reduce((m, log, i) => (log > rest[m]! ? i : m), 0)
    lost += slipped(left[worst]!.ohm, left[worst]!.times)
    left = left.filter((_, i) => i !== worst)
    now = normalOf(left, coils)
    if (now.fit.log > now.fit.best - FITS_NATS) break
  }
  return { log: logSum(logs), straight, best: fit.best }
}

/** Figures under one normal: how they fit, and by figure the log-density of all the others. */
interface Normal {
  readonly fit: Fit
  readonly without: () => Float64Array
}

/** The log-density of figures under their joint normal (Cholesky), and at its middle. */
function normalOf(figures: readonly Figure[], coils: CoilPriors): Normal {
  const n = figures.length
  if (n === 1) {
    const [{ ohm, seen }] = figures as [Figure]
    let [off, square] = [ohm - seen.mean, blurAt(seen, ohm) ** 2]
    for (const [d, s] of seen.coils) {
      const { mean, sd } = coils(d)
      off -= s * mean
      square += (s * sd) ** 2
    }
    for (const g of seen.figures) square += g * g
    const best = logNormal(0, Math.sqrt(square))
    return { fit: { log: best - (0.5 * off ** 2) / square, best }, without: () => new Float64Array(1) }
  }
  const { off, square: l } = covarianceOf(figures, coils)
  let [best, miss] = [-0.5 * n * LOG_TWO_PI, 0]
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = l[i * n + j]!
      for (let k = 0; k < j; k++) sum -= l[i * n + k]! * l[j * n + k]!
      l[i * n + j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / l[j * n + j]!
    }
    for (let k = 0; k < i; k++) off[i]! -= l[i * n + k]! * off[k]!
    off[i]! /= l[i * n + i]!
    miss += 0.5 * off[i]! ** 2
    best -= Math.log(l[i * n + i]!)
  }
  const far = miss > TOO_FAR_NATS
  return {
    fit: { log: best - miss, best },
    without: () => (far ? farthestOut(figures, coils) : leftOut(l, off, best - miss)),
  }
}
const LOG_TWO_PI = Math.log(2 * Math.PI)
/** Figures so far off that what is left without one of them would be lost in rounding, nats. */
const TOO_FAR_NATS = 1e5

/** Of figures that far off, all but the one that lies farthest off by itself. */
function farthestOut(figures: readonly Figure[], coils: CoilPriors): Float64Array {
  const alone = figures.map((f) => normalOf([f], coils).fit)
  const out = alone.reduce((m, f, i) => (f.best - f.log > alone[m]!.best - alone[m]!.log ? i : m), 0)
  const { log } = normalOf(
    figures.filter((_, i) => i !== out),
    coils,
  ).fit
  return Float64Array.from(figures, (_, i) => (i === out ? log : -Infinity))
}

/**
 * By figure the log-density of all the others: of a normal with covariance LLᵀ, what one figure adds to the rest is
 * normal about its own leave-one-out mean, with α = K⁻¹y and the diagonal of K⁻¹ (Rasmussen and Williams 2006, 5.4.2).
 */
function leftOut(l: Float64Array, forward: Float64Array, log: number): Float64Array {
  const n = forward.length
  const [diagonal, alpha] = [new Float64Array(n), new Float64Array(n)]
  const column = new Float64Array(n)
  for (let j = 0; j < n; j++) {
    // A column of L⁻¹: its squares add up to the diagonal of K⁻¹, and with the forward solution to α.
    for (let i = j; i < n; i++) {
      let sum = i === j ? 1 : 0
      for (let k = j; k < i; k++) sum -= l[i * n + k]! * column[k]!
      column[i] = sum / l[i * n + i]!
      diagonal[j]! += column[i]! ** 2
      alpha[j]! += column[i]! * forward[i]!
    }
  }
  return diagonal.map((d, i) => log - (0.5 * Math.log(d) - 0.5 * LOG_TWO_PI - (0.5 * alpha[i]! ** 2) / d))
}

/** What two readings have in common: their coils, and the figures of the same faults. */
function covariance(one: Figure, other: Figure, coils: CoilPriors): number {
  let sum = 0
  for (const [d, s] of one.seen.coils)
    for (const [e, t] of other.seen.coils) if (d === e) sum += s * t * coils(d).sd ** 2
  one.slots.forEach((slot, k) => {
    const m = one === other ? k : slot < 0 ? -1 : other.slots.indexOf(slot)
    if (m >= 0) sum += one.seen.figures[k]! * other.seen.figures[m]!
  })
  return sum
}
