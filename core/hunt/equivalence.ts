import { isToEarth, type FieldTest } from '../record'
import type { HuntContext } from './context'
import type { Cause } from './odds'
import { middleLike, type Catalogue, type Faults, type FaultHypothesis } from './catalogue'

/** The cell that stands for one in a test, with the others that are there. */
export type Like = (v: FaultHypothesis, together: Faults) => FaultHypothesis

/** Tests that a terminal's transformer feeds. */
const UNDER_POWER: ReadonlySet<FieldTest['kind']> = new Set<FieldTest['kind']>([
  'water',
  'click',
  'swap_test',
  'volts',
  'tester_power',
  'coil_volts',
  'coil_beside',
])
const betweenTerminals = (test: FieldTest): boolean =>
  test.kind === 'tester_coil' || (test.kind === 'ohms' && test.from.kind === 'terminal' && test.to.kind === 'terminal')
/** Causes by which an element lets less current through, or none. */
const IN_SERIES: ReadonlySet<Cause> = new Set<Cause>(['open', 'series', 'intermittent'])

/**
 * Gives for a test which cells show alike in it, so that one is worked out for all; null where every cell shows by
 * itself.
 */
export function equivalenceClasses(context: HuntContext, catalogue: Catalogue): (test: FieldTest) => Like | null {
  const { faults } = catalogue
  const every = faults.flatMap((f) => f.variants.map((v) => ({ f, v })))
  const standing = (
    listed: readonly { readonly v: FaultHypothesis; readonly as: string }[],
  ): ((v: FaultHypothesis) => FaultHypothesis) => {
    const first = new Map<string, FaultHypothesis>()
    for (const { v, as } of listed) if (!first.has(as)) first.set(as, v)
    const like = new Map(listed.map(({ v, as }) => [v.index, first.get(as)!]))
    return (v) => like.get(v.index) ?? v
  }
  const chain = chainsOf(context)
  const inSeries = standing(
    every.flatMap(({ f, v }) =>
      IN_SERIES.has(f.cause)
        ? [{ v, as: `${chain[v.mods.alters[0]!.element]} ${f.cause} ${v.ohm} ${f.withState}` }]
        : [],
    ),
  )
  /** Under power the place along a run where conductors touch moves volts by hundredths: the middle stands for all. */
  const middles = new Map(
    every.flatMap(({ f, v }) =>
      v.mods.joins.length === 0 || v.along === null ? [] : [[v.index, middleLike(f, v.ohm)] as const],
    ),
  )
  const joins = (v: FaultHypothesis) => v.mods.joins.length > 0
  return (test) => {
    if (isToEarth(test)) return null
    const power = UNDER_POWER.has(test.kind)
    if (!power && !betweenTerminals(test)) return null
    // Beside conductors that touch it matters on which side of them a chain is cut.
    return (v, together) =>
      joins(v) ? (power ? (middles.get(v.index) ?? v) : v) : together.some(joins) ? v : inSeries(v)
  }
}

/**
 * By element, the number of its chain: elements that follow each other where nothing else is joined and no terminal
 * lies, so that one current passes through all of them, and what is in series with any shows alike at the cabinet and
 * at a coil.
 */
function chainsOf({
  meterState: {
    powered: { nodeCount, parts },
  },
  terminals,
  common,
  wire,
}: HuntContext): Int32Array {
  const at: number[][] = Array.from({ length: nodeCount }, () => [])
  parts.forEach(({ a, b }, element) => {
    if (a !== b) {
      at[a]!.push(element)
      at[b]!.push(element)
    }
  })
  const read = new Set([...terminals, common].map(wire))
  const chain = Int32Array.from(parts, (_, element) => element)
  const first = (element: number): number => {
    let e = element
    while (chain[e] !== e) e = chain[e] = chain[chain[e]!]!
    return e
  }
  at.forEach((on, node) => {
    if (on.length === 2 && !read.has(node)) chain[first(on[1]!)] = first(on[0]!)
  })
  return chain.map((_, element) => first(element))
}
