import { misfitOf, type Connector } from './connector'

/** Conductors that are to be one node, by any key, with their copper in mm². */
export interface Conductor {
  readonly key: string
  readonly area_mm2: number
}

/** One connector of a joint: conductors it holds and the jumpers (by number) that end in it. */
export interface Made {
  readonly connector: Connector
  readonly holds: readonly string[]
  readonly jumpers: readonly number[]
}
/** A joint in as many connectors as it takes, linked to a tree by short jumpers of one size. */
export interface JointPlan {
  readonly made: readonly Made[]
  readonly jumpers: number
  readonly jumper_mm2: number
}

/** A connector's share while the counts are settled: how many conductors of each size, how many jumper ends. */
interface Share {
  readonly connector: Connector
  readonly taken: readonly number[]
  readonly degree: number
}
interface Reached {
  readonly cost: number
  readonly left: readonly number[]
  readonly degrees: number
  readonly last: Share | null
  readonly before: Reached | null
}

/** No box holds more conductors on one node than a large manifold with its commons. */
const MOST_CONNECTORS = 60

/**
 * The joint with the fewest connectors; among those, of the preferred kinds (earlier in the list), then with the
 * thicker jumper. Exact: connectors that each have at least one jumper end, 2(c − 1) ends in all, can always be
 * linked to a tree, so that it is enough to settle how many conductors of each size and how many jumper ends every
 * connector takes.
 * @returns null where some conductor fits none of the connectors
 */
export function planJoint(
  conductors: readonly Conductor[],
  connectors: readonly Connector[],
  jumpers_mm2: readonly number[],
): JointPlan | null {
  const alone = connectors.find(
    (connector) =>
      misfitOf(
        connector,
        conductors.map((c) => c.area_mm2),
      ) === null,
  )
  if (alone)
    return { made: [{ connector: alone, holds: conductors.map((c) => c.key), jumpers: [] }], jumpers: 0, jumper_mm2: 0 }
  let best: { plan: JointPlan; cost: number } | null = null
  for (const jumper_mm2 of [...new Set(jumpers_mm2)].sort((a, b) => b - a)) {
    const found = fewest(conductors, connectors, jumper_mm2)
    if (
      found &&
      (best === null ||
        found.plan.made.length < best.plan.made.length ||
        (found.plan.made.length === best.plan.made.length && found.cost < best.cost))
    )
      best = found
  }
  return best?.plan ?? null
}

function fewest(
  conductors: readonly Conductor[],
  connectors: readonly Connector[],
  jumper_mm2: number,
): { plan: JointPlan; cost: number } | null {
  const sizes = [...new Set(conductors.map((c) => c.area_mm2))].sort((a, b) => b - a)
  const all = sizes.map((s) => conductors.filter((c) => c.area_mm2 === s).length)
  const key = JSON.stringify([sizes, all, connectors, jumper_mm2])
  if (!settled.has(key)) {
    if (settled.size >= MOST_SETTLED) settled.clear()
    settled.set(key, settle(sizes, all, connectors, jumper_mm2))
  }
  const done = settled.get(key) ?? null
  return done && { plan: linked(done, sizes, conductors, jumper_mm2), cost: done.cost }
}

/** Counts that were settled before: a cable’s boxes ask for the same joints over and over. */
const settled = new Map<string, Reached | null>()
const MOST_SETTLED = 500

/** How many connectors of which kinds hold so many conductors of each size; null where none do. */
function settle(
  sizes: readonly number[],
  all: readonly number[],
  connectors: readonly Connector[],
  jumper_mm2: number,
): Reached | null {
  const most = all.reduce((sum, n) => sum + n, 0)
  const shares = sharesOf(sizes, all, connectors, jumper_mm2)
  // Of c connectors for n conductors, 2(c − 1) places go to the ends of jumpers.
  const widest = Math.max(...connectors.map((c) => c.most))
  const least = widest > 2 ? Math.max(2, Math.ceil((most - 2) / (widest - 2))) : 2
  for (let count = least; count <= Math.min(MOST_CONNECTORS, most + 1); count++) {
    const done = settledIn(count, all, shares)
    if (done) return done
  }
  return null
}

/** So many connectors that hold all, of the preferred kinds; null where as many do not. */
function settledIn(count: number, all: readonly number[], shares: ReturnType<typeof sharesOf>): Reached | null {
  const ends = 2 * (count - 1)
  let reached = new Map<string, Reached>([[all.join(), { cost: 0, left: all, degrees: 0, last: null, before: null }]])
  for (let n = 1; n <= count; n++) {
    const next = new Map<string, Reached>()
    // Each of those that are still to come has an end at least.
    const most = ends - (count - n)
    for (const state of reached.values())
      for (const { share, cost } of shares) {
        const degrees = state.degrees + share.degree
        if (degrees > most) continue
        const left = state.left.map((l, i) => l - share.taken[i]!)
        if (left.some((l) => l < 0)) continue
        const key = `${left.join()} ${degrees}`
        const known = next.get(key)
        if (!known || state.cost + cost < known.cost)
          next.set(key, { cost: state.cost + cost, left, degrees, last: share, before: state })
      }
    reached = next
  }
  return reached.get(`${all.map(() => 0).join()} ${ends}`) ?? null
}

/** Every way in which one connector of several can be filled: at least one jumper ends in it. */
function sharesOf(
  sizes: readonly number[],
  all: readonly number[],
  connectors: readonly Connector[],
  jumper_mm2: number,
): { share: Share; cost: number }[] {
  return connectors.flatMap((connector, preference) => {
    const found: { share: Share; cost: number }[] = []
    const fill = (taken: readonly number[]): void => {
      if (taken.length < sizes.length) {
        for (let n = 0; n <= Math.min(all[taken.length]!, connector.most); n++) fill([...taken, n])
        return
      }
      const held = taken.flatMap((n, i) => Array.from({ length: n }, () => sizes[i]!))
      for (let degree = 1; held.length + degree <= connector.most; degree++)
        if (misfitOf(connector, [...held, ...Array.from({ length: degree }, () => jumper_mm2)]) === null)
          found.push({ share: { connector, taken, degree }, cost: preference })
    }
    fill([])
    return found
  })
}

/**
 * Names the conductors of every share and draws the jumpers: the connectors in a row first, then branches where ends
 * are left.
 */
function linked(
  done: Reached,
  sizes: readonly number[],
  conductors: readonly Conductor[],
  jumper_mm2: number,
): JointPlan {
  const shares: Share[] = []
  for (let at: Reached | null = done; at?.last; at = at.before) shares.push(at.last)
  shares.sort((a, b) => b.degree - a.degree)
  const waiting = sizes.map((s) => conductors.filter((c) => c.area_mm2 === s).map((c) => c.key))
  const holds = shares.map((s) => s.taken.flatMap((n, i) => waiting[i]!.splice(0, n)))
  const ends = shares.map((s) => s.degree)
  const jumpers = shares.map((): number[] => [])
  let drawn = 0
  // Each connector hangs on the earliest one with an end left; sorted by ends, there always is one.
  for (let i = 1; i < shares.length; i++) {
    const on = ends.findIndex((free, j) => j < i && free > 0)
    for (const j of [on, i]) {
      ends[j]!--
      jumpers[j]!.push(drawn)
    }
    drawn++
  }
  return {
    made: shares.map((s, i) => ({ connector: s.connector, holds: holds[i]!, jumpers: jumpers[i]! })),
    jumpers: drawn,
    jumper_mm2,
  }
}
