import type { Observation } from '../beliefs'
import type { Predictor } from '../memoize'
import type { Catalogue, FaultHypothesis } from '../variants'
import type { CoilPriors } from '../weigh'

/** What sums are made from: every cell with its odds and its part, and how readings are predicted. */
export interface Model {
  readonly catalogue: Catalogue
  readonly predictor: Predictor
  readonly coils: CoilPriors
  /** By cell: its odds; all cells' add up to 1. */
  readonly odds: Float64Array
  /** By fault: its part's number. */
  readonly partOf: Int32Array
  readonly supply_V: { readonly read: number | null; readonly nominal: number }
}

/** Cells that show alike in every reading at hand. */
export interface CellClass {
  readonly members: readonly FaultHypothesis[]
  readonly odds: number
  /** Odds by part. */
  readonly parts: ReadonlyMap<number, number>
}

/** Groups cells by how they show in some readings; those that show in none are left out. */
export function classesOf(model: Model, cells: readonly FaultHypothesis[], readings: readonly Observation[]) {
  const { predictor, catalogue, odds, partOf } = model
  const found = new Map<string, { members: FaultHypothesis[]; odds: number; parts: Map<number, number> }>()
  for (const cell of cells) {
    const o = odds[cell.index]!
    if (o <= 0) continue
    const fault = catalogue.faults[cell.fault]!
    let shows = false
    let key = ''
    for (const { test } of readings) {
      if (predictor.mayAffect(test, fault)) {
        shows = true
        key += `${predictor.like(test, cell).index},`
      } else key += ','
    }
    if (!shows) continue
    const part = partOf[cell.fault]!
    const known = found.get(key)
    if (known) {
      known.members.push(cell)
      known.odds += o
      known.parts.set(part, (known.parts.get(part) ?? 0) + o)
    } else found.set(key, { members: [cell], odds: o, parts: new Map([[part, o]]) })
  }
  return [...found.values()] as readonly CellClass[]
}

/** Every cell a class of its own. */
export const eachByItself = ({ odds, partOf }: Model, cells: readonly FaultHypothesis[]): readonly CellClass[] =>
  cells.flatMap((cell) => {
    const o = odds[cell.index]!
    return o > 0 ? [{ members: [cell], odds: o, parts: new Map([[partOf[cell.fault]!, o]]) }] : []
  })

/** Odds by part of the cells that are in none of some classes. */
export function unfeltOf(
  { odds, partOf }: Model,
  cells: readonly FaultHypothesis[],
  classes: readonly CellClass[],
): Map<number, number> {
  const felt = new Set(classes.flatMap((c) => c.members.map((m) => m.index)))
  const left = new Map<number, number>()
  for (const c of cells) {
    const o = odds[c.index]!
    const part = partOf[c.fault]!
    if (o > 0 && !felt.has(c.index)) left.set(part, (left.get(part) ?? 0) + o)
  }
  return left
}
