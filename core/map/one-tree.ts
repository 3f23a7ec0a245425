/** Which ways a tree must and must not use; a way between stops i < j goes by i · count + j. */
export interface Allowed {
  readonly demanded: ReadonlySet<number>
  readonly forbidden: ReadonlySet<number>
}
export interface TreeBound {
  /** No round that keeps to what is allowed is shorter; infinite where none keeps to it. */
  readonly bound_m: number
  /** Ways at a stop of the best tree that has three or more; null where it is a round. */
  readonly crowded: readonly number[] | null
  /** The prices that gave it, for a branch to go on from. */
  readonly prices: Float64Array
}

/** Prices are settled once; a branch goes on from those of what it came from. */
const ITERATIONS = { root: 400, branch: 60 } as const
const PATIENCE = 12

/**
 * A bound on rounds by minimal 1-trees: a spanning tree of all but the first stop and the two shortest ways at
 * that one. A round is such a tree in which every stop has two ways, so prices on stops, which change no
 * round’s length against another’s, are raised where there are more and lowered where there is one (Held and
 * Karp 1971, subgradient ascent).
 * @param apart metres from stop to stop
 * @param aim_m the length of a round that is known
 * @param begin prices to go on from
 */
export function oneTreeBound(
  apart: readonly (readonly number[])[],
  { demanded, forbidden }: Allowed,
  aim_m: number,
  begin: Float64Array = new Float64Array(apart.length),
): TreeBound {
  const count = apart.length
  const price = Float64Array.from(begin)
  const key = (i: number, j: number) => (i < j ? i * count + j : j * count + i)
  /** A demanded way is taken before any other, and a forbidden one after all. */
  const ways = new Float64Array(count * count)
  for (let i = 0; i < count; i++)
    for (let j = 0; j < count; j++)
      ways[i * count + j] = forbidden.has(key(i, j)) ? Infinity : demanded.has(key(i, j)) ? -1e9 : apart[i]![j]!
  const real = (i: number, j: number) => apart[i]![j]! + price[i]! + price[j]!
  let best: TreeBound = { bound_m: -Infinity, crowded: null, prices: begin }
  let [step, since] = [1, 0]
  const [near, from, isIn] = [new Float64Array(count), new Int32Array(count), new Uint8Array(count)]
  const degree = new Int32Array(count)
  const most = demanded.size + forbidden.size === 0 ? ITERATIONS.root : ITERATIONS.branch
  for (let n = 0; n < most; n++) {
    // Prim’s tree of all stops but the first.
    const edges: [number, number][] = []
    isIn.fill(0)
    near.fill(Infinity)
    near[1] = -Infinity
    from[1] = -1
    for (let k = 1; k < count; k++) {
      let here = -1
      for (let i = 1; i < count; i++) if (!isIn[i] && (here < 0 || near[i]! < near[here]!)) here = i
      if (near[here] === Infinity) return { bound_m: Infinity, crowded: null, prices: begin }
      isIn[here] = 1
      if (from[here]! >= 0) edges.push([from[here]!, here])
      for (let i = 1; i < count; i++) {
        if (isIn[i]) continue
        const by = ways[here * count + i]! + price[here]! + price[i]!
        if (by < near[i]!) {
          near[i] = by
          from[i] = here
        }
      }
    }
    const atFirst = Array.from({ length: count - 1 }, (_, i) => i + 1)
      .filter((i) => ways[i] !== Infinity)
      .sort((a, b) => ways[a]! + price[a]! - ways[b]! - price[b]!)
    if (atFirst.length < 2) return { bound_m: Infinity, crowded: null, prices: begin }
    edges.push([0, atFirst[0]!], [0, atFirst[1]!])
    degree.fill(0)
    let sum = 0
    for (const [i, j] of edges) {
      degree[i]!++
      degree[j]!++
      sum += real(i, j)
    }
    for (let i = 0; i < count; i++) sum -= 2 * price[i]!
    const crowdedAt = degree.findIndex((d) => d > 2)
    if (sum > best.bound_m + 1e-9) {
      const crowded =
        crowdedAt < 0 ? null : edges.filter(([i, j]) => i === crowdedAt || j === crowdedAt).map(([i, j]) => key(i, j))
      best = { bound_m: sum, crowded, prices: Float64Array.from(price) }
      since = 0
    } else if (++since >= PATIENCE) {
      step /= 2
      since = 0
    }
    let off = 0
    for (let i = 0; i < count; i++) off += (degree[i]! - 2) ** 2
    if (off === 0 || step < 1e-4) break
    const by = (step * Math.max(aim_m - sum, 0.001 * aim_m)) / off
    for (let i = 0; i < count; i++) price[i]! += by * (degree[i]! - 2)
  }
  return best
}
