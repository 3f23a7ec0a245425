import { Matrix, solve } from 'ml-matrix'
import { done, isEnd, left, rise, type Supposed } from './finds'
import { WAND_NOISE_ratio } from './reading'

/** Readings along a path, by their places: the logarithm of what was shown without its gain. */
export interface PathLog {
  readonly along_m: readonly number[]
  readonly log: readonly number[]
  /** Below it nothing is shown, as a logarithm. */
  readonly floor: number
}

/** How a path with some finds tells what was read. */
export interface PathFit {
  /** Of what was read, but for a constant. */
  readonly logLikelihood: number
  /** What is meant at each reading. */
  readonly meant: readonly number[]
  /** Readings that tell of the signal and not of the floor. */
  readonly live: readonly number[]
  /** The columns that are fitted, at the live readings: for what another find would take away. */
  readonly columns: readonly (readonly number[])[]
}

/** How a signal fades, per metre: by e in 60 to 200 m, and somewhat beyond. */
const [FADING_per_m, FADING_SPREAD_per_m] = [0.01, 0.006]
/** What a T keeps, as a logarithm: between 0.4 and 0.8. */
const [KEPT, KEPT_SPREAD] = [Math.log(0.58), 0.3]
/** A signal nearer to the floor than this tells nothing of itself. */
const CLEAR = Math.log(1.35)
/** A normal factor’s logarithm is a little less than nothing in the middle. */
export const LOG_BIAS = (WAND_NOISE_ratio * WAND_NOISE_ratio) / 2
const TURNS = 4

/** The best fading signal with these finds, by least squares in the logarithm, what is usual being a reading too. */
export function fitPath({ along_m, log, floor }: PathLog, finds: readonly Supposed[]): PathFit {
  const steps = finds.flatMap((f, i) => (f.kind === 'step' ? [i] : []))
  const known = along_m.map((s) => {
    let sum = 0
    for (const f of finds)
      if (f.kind === 'local') sum += Math.log(rise(s, f.at_m))
      else if (isEnd(f)) sum += Math.log(Math.max(1e-6, left(f, s)))
    return sum - LOG_BIAS
  })
  const rowOf = (s: number) => [1, -s, ...steps.map((i) => done(s, finds[i]!.at_m))]
  let live = along_m.flatMap((_, i) => (known[i]! > -3 && log[i]! > floor + CLEAR ? [i] : []))
  let parts: number[] = []
  let meant: number[] = []
  for (let turn = 0; turn < TURNS; turn++) {
    if (live.length === 0) break
    parts = solved(
      live.map((i) => rowOf(along_m[i]!)),
      live.map((i) => log[i]! - known[i]!),
      steps.length,
    )
    const signal = along_m.map((s, i) => dot(rowOf(s), parts) + known[i]!)
    meant = signal.map((v) => Math.max(v, floor - LOG_BIAS))
    const now = signal.flatMap((v, i) => (v > floor + CLEAR ? [i] : []))
    if (now.length === live.length && now.every((i, k) => i === live[k])) break
    live = now
  }
  if (live.length === 0) meant = along_m.map(() => floor - LOG_BIAS)
  let squares = 0
  for (let i = 0; i < log.length; i++) squares += ((log[i]! - meant[i]!) / WAND_NOISE_ratio) ** 2
  squares += (((parts[1] ?? FADING_per_m) - FADING_per_m) / FADING_SPREAD_per_m) ** 2
  steps.forEach((_, k) => {
    squares += (((parts[2 + k] ?? KEPT) - KEPT) / KEPT_SPREAD) ** 2
  })
  const rows = live.map((i) => rowOf(along_m[i]!))
  return {
    logLikelihood: -squares / 2,
    meant,
    live,
    columns: (rows[0] ?? []).map((_, c) => rows.map((r) => r[c]!)),
  }
}

export const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, v, i) => sum + v * b[i]!, 0)

/** Normal equations with what is usual of the fading and of each step beside the readings. */
function solved(rows: readonly number[][], right: readonly number[], steps: number): number[] {
  const size = 2 + steps
  const normal = Matrix.zeros(size, size)
  const sums = new Array<number>(size).fill(0)
  rows.forEach((row, i) => {
    for (let a = 0; a < size; a++) {
      sums[a]! += row[a]! * right[i]!
      for (let b = 0; b < size; b++) normal.set(a, b, normal.get(a, b) + row[a]! * row[b]!)
    }
  })
  const usual = (at: number, middle: number, spread: number) => {
    const weight = (WAND_NOISE_ratio / spread) ** 2
    normal.set(at, at, normal.get(at, at) + weight)
    sums[at]! += weight * middle
  }
  usual(1, FADING_per_m, FADING_SPREAD_per_m)
  for (let k = 0; k < steps; k++) usual(2 + k, KEPT, KEPT_SPREAD)
  return solve(normal, Matrix.columnVector(sums)).to1DArray()
}
