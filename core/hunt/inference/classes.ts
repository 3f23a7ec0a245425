import type { TerminalId } from '../../site'
import type { Predictor } from '../memoize'
import type { Catalogue, FaultHypothesis } from '../catalogue'
import { takenKey, type TakenTest } from '../taken'
import type { CoilPriors } from '../weigh'
import type { Prediction } from '../predict'
import { isAsGood, signatureOf } from './signature'

/** What sums are made from: every cell with its odds and its part, and how readings are predicted. */
export interface Model {
  readonly catalogue: Catalogue
  readonly predictor: Predictor
  readonly coils: CoilPriors
  /** By cell: its odds; all cells' add up to 1. */
  readonly odds: Float64Array
  /** By fault: the number of its part, at which one fault sits at most; each end of a joint is a part of its own. */
  readonly partOf: Int32Array
  /** By part: its number among the catalogue's keys. */
  readonly keyOf: Int32Array
  /** By fault: the terminals in whose threads it lies; null for what lies in the common, or in none. */
  readonly threads: readonly (readonly TerminalId[] | null)[]
  readonly supply_V: { readonly read: number | null; readonly nominal: number }
  readonly shows: Shows
}

/** A catalogue with its odds made ready for sums. */
export function modelOf(
  { catalogue, predictor, coils }: Pick<Model, 'catalogue' | 'predictor' | 'coils'>,
  supply_V: Model['supply_V'],
  shows: Shows,
  threads: Model['threads'],
): Model {
  const whole = catalogue.faults.reduce((s, f) => s + f.prior, 0)
  const keys = new Map(catalogue.keys.map((key, n) => [key, n]))
  const numbers = new Map<string, number>()
  const keyOf: number[] = []
  const partOf = Int32Array.from(catalogue.faults, ({ key, at }) => {
    const name = `${key} ${at ?? ''}`
    let part = numbers.get(name)
    if (part === undefined) {
      numbers.set(name, (part = numbers.size))
      keyOf.push(keys.get(key)!)
    }
    return part
  })
  return {
    catalogue,
    predictor,
    coils,
    odds: Float64Array.from(catalogue.variants, (v) => (catalogue.faults[v.fault]!.prior / whole) * v.share),
    partOf,
    keyOf: Int32Array.from(keyOf),
    supply_V,
    shows,
    threads,
  }
}

/** Cells that show alike in every reading at hand. */
export interface CellClass {
  /** The first stands for all of them: none has more odds. */
  readonly members: readonly FaultHypothesis[]
  readonly odds: number
  /** Odds by part. */
  readonly parts: ReadonlyMap<number, number>
}

/** A fault of a class, by the cell that stands for it there. */
export interface AtFault {
  readonly cell: FaultHypothesis
  readonly odds: number
}

/** By cell, by its number, the one that stands for it: itself for most. */
export type Standing = readonly FaultHypothesis[]
/**
 * How cells show in tests: by cell a number, the same for two that no reading of the test tells apart; 0 where it is
 * none that could be told from the sound one. Worked out once for a test, since a hunt weighs its readings again with
 * every new one. `standing`: by cell the one that is looked at for it.
 */
export type ShowsBy = (test: TakenTest, standing: Standing) => Int32Array
export type Shows = (test: TakenTest) => Int32Array
export function showsOf(model: Pick<Model, 'catalogue' | 'predictor' | 'coils'>): ShowsBy {
  const { catalogue, predictor } = model
  const tests = new Map<string, { readonly numberOf: (cell: FaultHypothesis) => number; last: Shown | null }>()
  return (test, standing) => {
    const key = takenKey(test)
    const known = tests.get(key) ?? { numberOf: numbersIn(model, test), last: null }
    tests.set(key, known)
    if (known.last?.standing !== standing) {
      const numbers = new Int32Array(catalogue.variants.length)
      for (const fault of catalogue.faults)
        if (predictor.mayAffect(test, fault))
          for (const { index } of fault.variants) numbers[index] = known.numberOf(standing[index]!)
      known.last = { standing, numbers }
    }
    return known.last.numbers
  }
}
interface Shown {
  readonly standing: Standing
  readonly numbers: Int32Array
}
/** Numbers cells by how they show in a test, each looked at once. */
function numbersIn({ catalogue, predictor, coils }: Pick<Model, 'catalogue' | 'predictor' | 'coils'>, test: TakenTest) {
  const base = predictor.base(test)
  const byName = new Map<string, number>()
  const byPrediction = new Map<Prediction | null, number>([
    [base, 0],
    [null, 0],
  ])
  const known = new Int32Array(catalogue.variants.length).fill(-1)
  const made = (cell: FaultHypothesis): number => {
    const seen = predictor.under(test, [cell])
    let number = byPrediction.get(seen)
    if (number === undefined) {
      const name = isAsGood(seen!, base!, coils) ? '' : signatureOf(seen!, coils)
      number = name === '' ? 0 : (byName.get(name) ?? byName.size + 1)
      if (name !== '') byName.set(name, number)
      byPrediction.set(seen, number)
    }
    return number
  }
  return (cell: FaultHypothesis): number => {
    if (base === null) return 0
    if (known[cell.index]! < 0) known[cell.index] = made(cell)
    return known[cell.index]!
  }
}

/** Classes of cells, by how they show in some readings: a number for each, 0 for those that show in none. */
export interface Partition {
  readonly classes: readonly CellClass[]
  /** By class: the numbers by which it shows, reading by reading. */
  readonly shows: readonly Int32Array[]
}

/**
 * Groups cells by how they show in all readings, refining by one after the other; those that show in none are left out.
 * `apart`: by fault a name for what must not be taken for one all the same; cells with one are kept even where they do
 * not show.
 */
export function partitionOf(
  { odds, partOf, catalogue }: Model,
  shows: readonly Int32Array[],
  apart: (fault: number) => string,
): Partition {
  const { variants } = catalogue
  const block = new Int32Array(variants.length)
  const names = new Map<string, number>([['', 0]])
  const named = catalogue.faults.map((f) => {
    const name = apart(f.index)
    if (!names.has(name)) names.set(name, names.size)
    return names.get(name)!
  })
  variants.forEach((v, i) => (block[i] = named[v.fault]!))
  let blocks = names.size
  for (const numbers of shows) {
    const next = new Map<number, number>()
    const most = numbers.reduce((m, n) => Math.max(m, n), 0) + 1
    for (let i = 0; i < block.length; i++) {
      if (numbers[i] === 0) continue
      const key = block[i]! * most + numbers[i]!
      let b = next.get(key)
      if (b === undefined) next.set(key, (b = blocks++))
      block[i] = b
    }
  }
  const found = new Map<number, { members: FaultHypothesis[]; odds: number; parts: Map<number, number> }>()
  variants.forEach((v, i) => {
    const o = odds[v.index]!
    if (block[i] === 0 || o <= 0) return
    let c = found.get(block[i]!)
    if (!c) found.set(block[i]!, (c = { members: [], odds: 0, parts: new Map() }))
    c.members.push(v)
    c.odds += o
    const part = partOf[v.fault]!
    c.parts.set(part, (c.parts.get(part) ?? 0) + o)
  })
  const classes = [...found.values()].map((c) => ({
    ...c,
    members: c.members.sort((a, b) => odds[b.index]! - odds[a.index]!),
  }))
  return {
    classes,
    shows: classes.map(({ members }) => {
      const { index } = members[0]!
      const row = new Int32Array(shows.length)
      for (let r = 0; r < row.length; r++) row[r] = shows[r]![index]!
      return row
    }),
  }
}

/** A class for each piece of some cells of one fault apiece; those with the same name are one. */
function piecesOf(
  { odds, partOf }: Model,
  cells: readonly FaultHypothesis[],
  nameOf: (cell: FaultHypothesis) => string,
): readonly CellClass[] {
  const pieces = new Map<string, FaultHypothesis[]>()
  for (const c of cells) {
    const list = pieces.get(nameOf(c))
    if (list) list.push(c)
    else pieces.set(nameOf(c), [c])
  }
  return [...pieces.values()].map((members): CellClass => {
    const sum = members.reduce((s, m) => s + odds[m.index]!, 0)
    return { members, odds: sum, parts: new Map([[partOf[members[0]!.fault]!, sum]]) }
  })
}

/** A class for each fault among some cells. */
export const byFault = (model: Model, cells: readonly FaultHypothesis[]): readonly CellClass[] =>
  piecesOf(model, cells, (c) => `${c.fault}`)

/** A class for each size of each fault, wherever it lies. */
export const bySize = (model: Model, cells: readonly FaultHypothesis[]): readonly CellClass[] =>
  piecesOf(model, cells, (c) => `${c.fault} ${c.ohm}`)
