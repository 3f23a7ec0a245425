import type { ReadingValue } from '../../record'
import { logNormal, logSum } from '../normal'
import { blurAt, type Prediction } from '../predict'
import { slipped, weighAlone, type CoilPriors } from '../weigh'

/** Readings that fit within so many nats of the best that they could have not slipped. */
const FITS_NATS = 4
/** More readings of one thread than these never slipped but all together. */
const MOST_SLIPPED = 3

type Ohms = Extract<Prediction, { kind: 'ohms' }>

/** A reading as it was taken beside what it would be under a hypothesis; null where that says nothing of it. */
export interface Weighable {
  readonly value: ReadingValue
  readonly seen: Prediction | null
  /** By figure of `seen`: its number among those of the hypothesis, the same in every reading. */
  readonly slots: readonly number[]
}
interface Figure {
  readonly ohm: number
  readonly seen: Ohms
  readonly slots: readonly number[]
}

/** How well readings fit a hypothesis, nats, and how well they would if each showed just what it foresees. */
export interface Fit {
  readonly log: number
  readonly best: number
}

/**
 * Log-likelihood of readings that may share coils and a fault's figures. Readings in ohms are one normal: its
 * covariance is what each is blurred by, the coils' deviations and the figures' spreads. Each of them may have slipped.
 */
export function fitOf(
  readings: readonly Weighable[],
  supply_V: { readonly read: number | null; readonly nominal: number },
  coils: CoilPriors,
): Fit {
  let [log, best] = [0, 0]
  const figures: Figure[] = []
  for (const { value, seen, slots } of readings) {
    if (seen === null) continue
    const alone = weighAlone(seen, value, supply_V)
    log += alone.log
    if (alone.ohms && value.kind === 'ohm') figures.push({ ohm: value.ohm, seen: alone.ohms, slots })
    else best += mostOf(value, alone.log)
  }
  if (figures.length === 0) return { log, best }
  const together = orSlipped(figures, coils)
  return { log: log + together.log, best: best + together.best }
}

/** What a reading that stands alone could be worth at most; never less than it is. */
const mostOf = (value: ReadingValue, log: number): number =>
  Math.max(
    log,
    value.kind === 'volt' ? logNormal(0, 0.3) : value.kind === 'ohm' ? logNormal(0, meterBlur_ohm(value.ohm)) : 0,
  )
/** About what a meter's blur is at so many ohms, where nothing was foreseen in ohms. */
const meterBlur_ohm = (ohm: number): number => 0.1 + 0.02 * ohm

/** Figures as they fit together, or without those that fit worst: one, two … as far as they may have slipped, or all. */
function orSlipped(figures: readonly Figure[], coils: CoilPriors): Fit {
  const fit = normalOf(figures, coils)
  if (fit.log > fit.best - FITS_NATS) return fit
  const logs = [fit.log, figures.reduce((s, f) => s + slipped(f.ohm), 0)]
  let [left, lost] = [figures, 0]
  for (let n = 0; n < MOST_SLIPPED && left.length > 1; n++) {
    const rest = left.map((f) => ({ f, fit: normalOf(without(left, f), coils) }))
    for (const r of rest) logs.push(lost + slipped(r.f.ohm) + r.fit.log)
    const worst = rest.reduce((m, r) => (r.fit.log > m.fit.log ? r : m))
    left = without(left, worst.f)
    lost += slipped(worst.f.ohm)
    if (worst.fit.log > worst.fit.best - FITS_NATS) break
  }
  return { log: logSum(logs), best: fit.best }
}
const without = <T>(list: readonly T[], one: T): T[] => list.filter((x) => x !== one)

/** The log-density of figures under their joint normal (Cholesky), and at its middle. */
function normalOf(figures: readonly Figure[], coils: CoilPriors): Fit {
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
    return { log: best - (0.5 * off ** 2) / square, best }
  }
  const l = new Float64Array(n * n)
  const off = new Float64Array(n)
  let [best, miss] = [-0.5 * n * Math.log(2 * Math.PI), 0]
  figures.forEach(({ ohm, seen }, i) => {
    off[i] = ohm - seen.mean - seen.coils.reduce((s, [d, c]) => s + c * coils(d).mean, 0)
    for (let j = 0; j <= i; j++) l[i * n + j] = covariance(figures[i]!, figures[j]!, coils)
    l[i * n + i]! += blurAt(seen, ohm) ** 2
  })
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
  return { log: best - miss, best }
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
