import type { Explanation } from '../beliefs'
import type { FaultHypothesis } from '../catalogue'
import { byFault, type AtFault, type CellClass, type Model } from './classes'
import { cellsOf, drawn } from './drawn'
import { TOLD_NATS, type Island } from './island'
import type { Polynomial } from './polynomial'

/** Explanations that are kept of an island, those within `TOLD_NATS` of the best. */
const KEPT = 400
/** Where those hold less of the belief, others are drawn that stand for all of it. */
const NEARLY_ALL = 0.95

/** Some faults together: a class each, and the log of what all its cells hold. */
interface Story {
  readonly classes: readonly CellClass[]
  readonly log: number
}
/** The likeliest of some, those that lie too far below left out. */
function likeliest<T extends { readonly log: number }>(list: readonly T[]): T[] {
  const most = list.reduce((m, e) => Math.max(m, e.log), -Infinity)
  return list
    .filter((e) => e.log > most - TOLD_NATS)
    .sort((a, b) => b.log - a.log)
    .slice(0, KEPT)
}

/** The likeliest of one of each of two lists together, both from the likeliest on. */
function likeliestTogether(list: readonly Story[], own: readonly Story[]): readonly Story[] {
  const least = list[0]!.log + own[0]!.log - TOLD_NATS
  const found: Story[] = []
  for (const e of list)
    for (const o of own) {
      const log = e.log + o.log
      if (log <= least) break
      found.push({ classes: o.classes.length === 0 ? e.classes : [...e.classes, ...o.classes], log })
    }
  return likeliest(found)
}

/** The cell that stands for its like where the next test is chosen. */
const middleOf = ({ members }: CellClass): FaultHypothesis => members[members.length >> 1]!

/**
 * What explains an island's readings, the likeliest first. `top`: the log of what all cases are held against; `worth`:
 * of a set of k of its faults beside its own product.
 */
export function explanationsOf(island: Island, model: Model, top: number, worth: Polynomial): Explanation[] {
  const known = new Map<CellClass, readonly AtFault[]>()
  const atFaultsOf = (c: CellClass) => {
    const faults = known.get(c) ?? byFault(model, c.members).map((f) => ({ cell: middleOf(f), odds: f.odds }))
    known.set(c, faults)
    return faults
  }
  const listed = fromTheLikeliest(island, model, top, worth, atFaultsOf)
  const best = listed[0]
  if (!best || listed.reduce((s, e) => s + e.p, 0) >= NEARLY_ALL) return listed
  const others = drawn(island, model, top, worth, atFaultsOf).filter((e) => cellsOf(e.faults) !== cellsOf(best.faults))
  const sum = others.reduce((s, e) => s + e.p, 0)
  return [best, ...others.map((e) => ({ ...e, p: (e.p * (1 - best.p)) / sum }))]
}

/** Sets of faults from the likeliest on: shared ones with one entry of every group, each at all its faults. */
function fromTheLikeliest(
  { cases }: Island,
  { partOf }: Model,
  top: number,
  worth: Polynomial,
  atFaultsOf: (c: CellClass) => readonly AtFault[],
): Explanation[] {
  const stories = cases.flatMap((c): Story[] => {
    let list: readonly Story[] = [{ classes: c.set, log: c.top - top - c.factors.reduce((s, f) => s + f.top, 0) }]
    for (const { entries } of [...c.factors, c.beside]) list = likeliestTogether(list, likeliest(entries))
    return list.map((e) => ({ ...e, log: e.log + Math.log(worth[e.classes.length] || 1e-300) }))
  })
  let told: { faults: FaultHypothesis[]; left: readonly CellClass[]; log: number }[] = likeliest(stories).map((s) => ({
    faults: [],
    left: s.classes,
    log: s.log,
  }))
  while (told.some((t) => t.left.length > 0))
    told = likeliest(
      told.flatMap((t) => {
        const [next, ...left] = t.left
        if (!next) return [t]
        return atFaultsOf(next)
          .filter(({ cell }) => !t.faults.some((f) => partOf[f.fault] === partOf[cell.fault]))
          .map(({ cell, odds }) => ({ faults: [...t.faults, cell], left, log: t.log + Math.log(odds / next.odds) }))
      }),
    )
  return told.map((t) => ({ faults: t.faults, p: Math.exp(t.log) }))
}

/** Faults that no reading shows yet, one at a time: what the next tests may bring to light. */
export function unreadOf(hidden: readonly CellClass[], worth: number): Explanation[] {
  const told = hidden
    .map((c) => ({ faults: [middleOf(c)], p: c.odds * worth }))
    .sort((a, b) => b.p - a.p)
    .slice(0, KEPT)
  const some = told.reduce((s, e) => s + e.p, 0)
  return some < 1 ? [{ faults: [], p: 1 - some }, ...told] : told
}
