import { getOrThrow, stopPositions_m } from '../../site'
import type { HuntContext } from '../context'
import type { OddsBasis } from '../odds'
import { joined, middles, type Cell, type Entry } from './cells'
import { conductorRunsOf, devicesOn, POSITIONS, spotAlong, type Run } from './runs'

const TOUCH_ohm = [0.1, 1, 3, 10, 30, 70, 140, 300] as const

/** Two cores that do not lie side by side in a jacket's order touch so much more rarely; their grid is a coarse one. */
const APART = { times: 0.25, ohm: [0.1, 3, 30, 140], positions: 2 } as const

/** Cores of one jacket that touch: any two, those that lie side by side and each with its common before others. */
export function touchFaults(context: HuntContext, basis: OddsBasis): Entry[] {
  const { site } = context
  const byCable = new Map<string, Run[]>()
  for (const run of conductorRunsOf(context))
    byCable.set(run.where.cable, [...(byCable.get(run.where.cable) ?? []), run])
  const found: Entry[] = []
  for (const runs of byCable.values()) {
    const order = (run: Run) => getOrThrow(getOrThrow(site.cables, run.where.cable).cores, run.where.core).order
    const cores = [...new Set(runs.map((r) => r.where.core))].sort(
      (a, b) => order(runs.find((r) => r.where.core === a)!) - order(runs.find((r) => r.where.core === b)!),
    )
    for (const one of runs)
      for (const other of runs) {
        if (one === other || (one.common && other.common)) continue
        const [i, j] = [cores.indexOf(one.where.core), cores.indexOf(other.where.core)]
        // Each pair once: the common comes second, else the later core does.
        if (one.common || (!other.common && j <= i)) continue
        const isBeside = other.common || j === i + 1
        const [from, to] = [Math.max(one.from, other.from), Math.min(one.to, other.to)]
        if (from >= to) continue
        const cable = getOrThrow(site.cables, one.where.cable)
        const at = stopPositions_m(cable)
        const length_m = Math.max(0.5, at[to]!.value - at[from]!.value)
        // A lead has its eight positions over all the pieces of the common that it lies beside.
        const positions = Math.max(2, Math.round((POSITIONS * length_m) / Math.max(one.length_m, length_m)))
        const spots = middles(isBeside ? positions : APART.positions)
        const sizes = isBeside ? TOUCH_ohm : APART.ohm
        const along = (run: Run, x: number) => {
          const m = at[from]!.value + x * (at[to]!.value - at[from]!.value)
          const [a, b] = [at[run.from]!.value, at[run.to]!.value]
          return b > a ? (m - a) / (b - a) : 0.5
        }
        const touch = (x: number, ohm: number) =>
          joined(spotAlong(context, one, along(one, x)), spotAlong(context, other, along(other, x)), ohm)
        found.push({
          where: {
            kind: 'touch',
            cable: one.where.cable,
            core: one.where.core,
            other: other.where.core,
            from: cable.stops[from]!.id,
            to: cable.stops[to]!.id,
          },
          cause: 'touch',
          family: 'conductor',
          weight: length_m * (one.suspect || other.suspect ? basis.suspect : 1) * (isBeside ? 1 : APART.times),
          elements: [...one.elements, ...other.elements],
          // Two leads that touch at little run both their valves.
          besides: other.common ? [] : [one, other].flatMap((r) => devicesOn(context, r)),
          cells: spots.at.flatMap((x) =>
            sizes.map((ohm, k): Cell => {
              const sd = (ohm - (sizes[k - 1] ?? 0)) / 2
              return {
                mods: touch(x, ohm),
                shifted: [touch(x, ohm + sd), touch(Math.min(1, x + spots.sd), ohm)],
                share: k < 2 ? 2 : 1,
                ohm,
                sd_ohm: sd,
                along: x,
              }
            }),
          ),
        })
      }
  }
  return found
}
