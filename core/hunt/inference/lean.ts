import type { CoilPriors } from '../weigh'
import { logNormal, logSum } from '../normal'
import { covarianceOf, figuresOf, slipped, type Figure, type Weighable } from './likelihood'

/**
 * How readings lean on figures z that other readings lean on too, each unit normal by itself: their log-density is
 * bᵀz − ½·zᵀCz beside what it is at z = 0.
 */
export interface Lean {
  readonly b: Float64Array
  readonly c: Float64Array
  /** What it costs if these readings have slipped instead, nats; less than nothing where they rather have. */
  readonly slip: number
}

/** A reading that lies so many deviations off slipped: it says nothing of a figure. */
const SLIPPED_DEVIATIONS = 5

/**
 * How readings of one group lean: those with coils in them together, each of the others by itself. `dimOf`: by slot of
 * a prediction's figure the number of z, or less than none.
 */
export function leansOf(
  readings: readonly Weighable[],
  coils: CoilPriors,
  dims: number,
  dimOf: (slot: number) => number,
): Lean[] {
  const figures = figuresOf(readings)
  const together = figures.filter((f) => f.seen.coils.length > 0)
  const apart = figures.filter((f) => f.seen.coils.length === 0)
  return [together, ...apart.map((f) => [f])].flatMap((list) => leanOf(list, coils, dims, dimOf) ?? [])
}

/** Null where no figure leans on any z. */
function leanOf(
  every: readonly Figure[],
  coils: CoilPriors,
  dims: number,
  dimOf: (slot: number) => number,
): Lean | null {
  const isOwn = (slot: number) => dimOf(slot) < 0
  let slip = 0
  const figures = every.filter((f) => {
    if (f.slots.every(isOwn)) return false
    const { off, square } = covarianceOf([f], coils, () => true)
    if (off[0]! ** 2 > SLIPPED_DEVIATIONS ** 2 * square[0]!) return false
    slip += logNormal(off[0]!, Math.sqrt(square[0]!)) - slipped(f.ohm)
    return true
  })
  const n = figures.length
  if (n === 0) return null
  const { off, square: l } = covarianceOf(figures, coils, isOwn)
  const columns = Array.from({ length: dims }, () => new Float64Array(n))
  figures.forEach(({ seen, slots }, i) => {
    slots.forEach((slot, k) => {
      if (!isOwn(slot)) columns[dimOf(slot)]![i]! += seen.figures[k]!
    })
  })
  const rows = [off, ...columns]
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = l[i * n + j]!
      for (let k = 0; k < j; k++) sum -= l[i * n + k]! * l[j * n + k]!
      l[i * n + j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / l[j * n + j]!
    }
    for (const row of rows) {
      for (let k = 0; k < i; k++) row[i]! -= l[i * n + k]! * row[k]!
      row[i]! /= l[i * n + i]!
    }
  }
  const dot = (x: Float64Array, y: Float64Array) => x.reduce((s, v, i) => s + v * y[i]!, 0)
  const c = new Float64Array(dims * dims)
  columns.forEach((x, r) => columns.forEach((y, k) => (c[r * dims + k] = dot(x, y))))
  return { b: Float64Array.from(columns, (x) => dot(x, off)), c, slip }
}

/**
 * The log of what leans hold together, one z for all of them, beside what each holds with one of its own, nats; the
 * readings of one of them may have slipped.
 */
export function coupledBy(leans: readonly Lean[], dims: number): number {
  if (leans.length < 2) return 0
  const whole = fitting(leans, dims)
  const fitsAll = whole > -FITS_NATS && leans.every((l) => l.slip > 0)
  const some = fitsAll ? [] : leans.map((l) => fitting(without(leans, l), dims) - l.slip)
  const all = -leans.reduce((s, l) => s + l.slip, 0)
  // Each by itself may have slipped too.
  return logSum([whole, ...some, all]) - leans.reduce((s, l) => s + logSum([0, -l.slip]), 0)
}
const without = <T>(list: readonly T[], one: T): T[] => list.filter((x) => x !== one)
/** Leans that go together within so many nats need no slip. */
const FITS_NATS = 3

function fitting(leans: readonly Lean[], dims: number): number {
  const [b, c] = [new Float64Array(dims), new Float64Array(dims * dims)]
  let apart = 0
  for (const l of leans) {
    apart += integrated(l.b, l.c, dims)
    l.b.forEach((x, i) => (b[i]! += x))
    l.c.forEach((x, i) => (c[i]! += x))
  }
  return integrated(b, c, dims) - apart
}

/** Integrates unit-normal figures out of a quadratic: ½·bᵀ(I + C)⁻¹b − ½·log|I + C|. */
function integrated(b: Float64Array, c: Float64Array, n: number): number {
  const m = c.slice()
  for (let i = 0; i < n; i++) m[i * n + i]! += 1
  const x = b.slice()
  let [log, gain] = [0, 0]
  for (let k = 0; k < n; k++) {
    const pivot = m[k * n + k]!
    log += Math.log(pivot)
    gain += x[k]! ** 2 / pivot
    for (let r = k + 1; r < n; r++) {
      const f = m[r * n + k]! / pivot
      for (let q = k; q < n; q++) m[r * n + q]! -= f * m[k * n + q]!
      x[r]! -= f * x[k]!
    }
  }
  return 0.5 * gain - 0.5 * log
}
