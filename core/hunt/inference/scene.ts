import { DisjointSets, type TerminalId } from '../../site'
import type { Observation } from '../beliefs'
import type { HuntContext } from '../context'
import type { Fault, FaultHypothesis } from '../catalogue'
import { byFault, partitionOf, type CellClass, type Model } from './classes'
import type { Group } from './group'
import { ledBy, threadsOf } from './scope'
import type { GroupStock } from './stock'

/** Cells that show alike in all readings, in those of more than one group. */
export interface SharedClass extends CellClass {
  readonly index: number
  /** By group: a name for how it shows there, none where it does not. */
  readonly effects: readonly string[]
  /** The same as numbers, 0 where it does not. */
  readonly effectNumbers: Int32Array
  /** Groups in whose readings it shows, and those whose currents it leads to each other. */
  readonly touched: readonly number[]
  readonly links: readonly number[]
}

/** Readings in groups that only shared faults couple, the faults of each, and the shared ones. */
export interface Scene {
  readonly model: Model
  readonly groups: readonly Group[]
  readonly shared: readonly SharedClass[]
  /**
   * By part: odds of its cells that no reading shows; of parts that have a shared one by the first group it touches.
   */
  readonly unfelt: ReadonlyMap<number, number>
  readonly besideShared: readonly ReadonlyMap<number, number>[]
  /** Every cell that no reading shows, and its like. */
  readonly hidden: readonly CellClass[]
}

/**
 * Readings of one thread are a group, those between two of both of them. What shows in one group only is that group's
 * own; what shows in more, or leads one thread's current to another's, is shared.
 */
export function sceneOf(
  context: HuntContext,
  model: Model,
  stock: GroupStock,
  readings: readonly Observation[],
): Scene {
  const { catalogue } = model
  const { lists, groupOf } = groupedReadings(context, readings, catalogue.faults)
  const links = catalogue.faults.map((f): readonly number[] => {
    const led = f.links ? [...new Set(ledBy(context, f).flatMap((t) => groupOf(t) ?? []))] : []
    return led.length > 1 ? led : []
  })
  const { classes, shows } = partitionOf(
    model,
    lists.flat().map(({ test }) => model.shows(test)),
    (fault) => (links[fault]!.length > 0 ? `${catalogue.faults[fault]!.cause} ${links[fault]!.join()}` : ''),
  )
  const at = lists.flatMap((list, group) => list.map((_, place) => ({ group, place })))
  const shared: SharedClass[] = []
  const own: CellClass[][] = lists.map(() => [])
  const numbersOf = numbered(lists.length)
  classes.forEach((c, k) => {
    const led = links[c.members[0]!.fault]!
    const effects = effectsOf(shows[k]!, at, lists.length)
    const touched = touchedBy(effects, led)
    if (touched.length === 1 && led.length === 0) own[touched[0]!]!.push(c)
    else shared.push({ ...c, index: shared.length, effects, effectNumbers: numbersOf(effects), links: led, touched })
  })
  const groupOfFault = (fault: number): number | null => {
    const owners = catalogue.faults[fault]!.links ? null : model.threads[fault]
    return owners ? groupOf(owners[0]!) : null
  }
  const { hidden, unfelt, every } = hiddenOf(model, groupOfFault, lists.length, classes)
  const groups = lists.map((list, k) => stock.of(model, list, own[k]!, hidden[k]!))
  stock.keepOnly(groups)
  return {
    model,
    groups,
    shared,
    ...besideShared(lists.length, shared, unfelt),
    hidden: byFault(model, every),
  }
}

/** By group a name for how a class shows in its readings, `at` being where each of them stands. */
function effectsOf(
  shows: Int32Array,
  at: readonly { readonly group: number; readonly place: number }[],
  count: number,
): string[] {
  const effects = new Array<string>(count).fill('')
  for (let r = 0; r < shows.length; r++) if (shows[r] !== 0) effects[at[r]!.group] += `${at[r]!.place}:${shows[r]} `
  return effects
}
/** Groups in which something shows, and those that it leads to each other. */
function touchedBy(effects: readonly string[], led: readonly number[]): number[] {
  const touched: number[] = []
  for (let g = 0; g < effects.length; g++) if (effects[g] !== '' || led.includes(g)) touched.push(g)
  return touched
}

/** Numbers names list by list, those that are empty 0. */
function numbered(count: number): (names: readonly string[]) => Int32Array {
  const known = Array.from({ length: count }, () => new Map<string, number>())
  return (names) => {
    const numbers = new Int32Array(count)
    for (let k = 0; k < count; k++) {
      const name = names[k]!
      if (name === '') continue
      numbers[k] = known[k]!.get(name) ?? known[k]!.size + 1
      known[k]!.set(name, numbers[k]!)
    }
    return numbers
  }
}

/** Cells that no reading shows, by the group whose thread they lie in; the odds of the others by part. */
function hiddenOf(
  { odds, partOf, catalogue }: Model,
  groupAt: (fault: number) => number | null,
  count: number,
  classes: readonly CellClass[],
) {
  const felt = new Uint8Array(odds.length)
  for (const c of classes) for (const m of c.members) felt[m.index] = 1
  const hidden: FaultHypothesis[][] = Array.from({ length: count }, () => [])
  const unfelt = new Map<number, number>()
  const every: FaultHypothesis[] = []
  for (const v of catalogue.variants) {
    const o = odds[v.index]!
    if (felt[v.index] === 1 || o <= 0) continue
    every.push(v)
    const g = groupAt(v.fault)
    const part = partOf[v.fault]!
    if (g === null) unfelt.set(part, (unfelt.get(part) ?? 0) + o)
    else hidden[g]!.push(v)
  }
  return { hidden, unfelt, every }
}

/** What no reading shows of parts that have a shared fault too: these stand beside the sets that hold none of them. */
function besideShared(count: number, shared: readonly SharedClass[], unfelt: ReadonlyMap<number, number>) {
  const rest = new Map(unfelt)
  const beside = Array.from({ length: count }, () => new Map<number, number>())
  for (const c of shared)
    for (const part of c.parts.keys()) {
      const odds = rest.get(part)
      if (odds === undefined) continue
      beside[c.touched[0]!]!.set(part, odds)
      rest.delete(part)
    }
  return { unfelt: rest, besideShared: beside }
}

/**
 * Readings by the threads that they belong to; those of none are a group of their own, and threads without any that a
 * fault leads to another's.
 */
function groupedReadings(context: HuntContext, readings: readonly Observation[], faults: readonly Fault[]) {
  const threads = threadsOf(context)
  const joined = new DisjointSets<TerminalId>()
  const homes = readings.map(({ test }) => threads(test))
  for (const home of homes) for (const t of home) joined.join(home[0]!, t)
  const lists = new Map<TerminalId | null, Observation[]>()
  readings.forEach((r, i) => {
    const home = homes[i]!.length === 0 ? null : joined.of(homes[i]![0]!)
    const list = lists.get(home)
    if (list) list.push(r)
    else lists.set(home, [r])
  })
  // A thread that was not read counts where its wire may be led to one that was.
  const isRead = (t: TerminalId) => lists.has(joined.of(t))
  for (const f of faults) {
    const ends = f.links ? ledBy(context, f) : []
    if (ends.some(isRead)) for (const t of ends) if (!isRead(t)) lists.set(joined.of(t), [])
  }
  const names = [...lists.keys()]
  return {
    lists: [...lists.values()],
    groupOf: (t: TerminalId): number | null => {
      const k = names.indexOf(joined.of(t))
      return k < 0 ? null : k
    },
  }
}
