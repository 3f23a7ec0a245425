import { logNormal, logSum } from '../core/hunt/normal'
import type { Prediction } from '../core/hunt/predict'

/** A reading in ohms beside what was foreseen. */
interface Shown {
  readonly ohm: number
  readonly seen: Extract<Prediction, { kind: 'ohms' }>
}

/** The log-density of readings by brute force: coils and figures on a fine grid, every reading by itself, added up. */
export function byGrid(readings: readonly Shown[], sd: number): number {
  const coils = [...new Set(readings.flatMap((r) => r.seen.coils.map(([d]) => d)))]
  const figures = Math.max(0, ...readings.map((r) => r.seen.figures.length))
  const [steps, span] = [41, 5]
  const grid = Array.from({ length: steps }, (_, i) => -span + (2 * span * i) / (steps - 1))
  const weight = grid.map((z) => logNormal(z, 1) + Math.log((2 * span) / (steps - 1)))
  const logs: number[] = []
  const visit = (chosen: number[], log: number): void => {
    if (chosen.length < coils.length + figures) {
      grid.forEach((z, i) => visit([...chosen, z], log + weight[i]!))
      return
    }
    logs.push(
      log +
        readings.reduce(
          (s, r) =>
            s +
            logNormal(
              r.ohm -
                r.seen.mean -
                r.seen.coils.reduce((t, [d, c]) => t + c * sd * chosen[coils.indexOf(d)]!, 0) -
                r.seen.figures.reduce((t, g, k) => t + g * chosen[coils.length + k]!, 0),
              r.seen.noise,
            ),
          0,
        ),
    )
  }
  visit([], 0)
  return logSum(logs)
}
