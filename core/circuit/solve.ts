import type { Network } from './network'
import { partsOf } from './parts'

/** Solves a network for one ampere in at one node and out at another, again and again. */
export interface Solver {
  /** Whether current can pass between two nodes: structure alone decides, no number does. */
  readonly connected: (a: number, b: number) => boolean
  /**
   * Volts at every node of the two nodes' part for 1 A in at `from` and out at `to`; others read 0. Both must be
   * connected.
   */
  readonly potentials: (from: number, to: number) => Float64Array
  /** Ohms between two nodes; Infinity where they are not connected. */
  readonly resistance_ohm: (from: number, to: number) => number
}

interface Step {
  readonly node: number
  readonly total_S: number
  readonly to: Int32Array
  readonly share_S: Float64Array
}

/**
 * Factors the network once: nodes are taken out one by one, those with the fewest neighbours first, and each leaves a
 * mesh among its neighbours (the star-mesh transform). All sums are of positive conductances, so nothing cancels and
 * no pivot can be lost; wiring is nearly a tree, so hardly anything fills in. O(n) for a tree.
 */
export function solverOf(network: Network): Solver {
  const { nodeCount, elements } = network
  const part = partsOf(nodeCount, elements)
  const steps = eliminate(nodeCount, elements)
  const connected = (a: number, b: number) => part[a] === part[b]

  const potentials = (from: number, to: number): Float64Array => {
    if (!connected(from, to))
      throw new Error(`potentials: nodes ${from} and ${to} are not connected; ask connected first`)
    const current_A = new Float64Array(nodeCount)
    current_A[from]! += 1
    current_A[to]! -= 1
    for (const { node, total_S, to: around, share_S } of steps) {
      if (total_S === 0 || current_A[node] === 0) continue
      const per_S = current_A[node]! / total_S
      for (let k = 0; k < around.length; k++) current_A[around[k]!]! += per_S * share_S[k]!
    }
    const volts = new Float64Array(nodeCount)
    for (let s = steps.length - 1; s >= 0; s--) {
      const { node, total_S, to: around, share_S } = steps[s]!
      if (total_S === 0) continue // the last of its part: the reference, at 0 V
      let sum = current_A[node]!
      for (let k = 0; k < around.length; k++) sum += share_S[k]! * volts[around[k]!]!
      volts[node] = sum / total_S
    }
    const reference = volts[to]!
    for (let n = 0; n < nodeCount; n++) if (part[n] === part[to]) volts[n]! -= reference
    return volts
  }

  const resistance_ohm = (from: number, to: number): number => {
    if (from === to) return 0
    return connected(from, to) ? potentials(from, to)[from]! : Infinity
  }
  return { connected, potentials, resistance_ohm }
}

function eliminate(nodeCount: number, elements: Network['elements']): Step[] {
  const around: Map<number, number>[] = Array.from({ length: nodeCount }, () => new Map())
  const link = (a: number, b: number, siemens: number) => {
    around[a]!.set(b, (around[a]!.get(b) ?? 0) + siemens)
    around[b]!.set(a, (around[b]!.get(a) ?? 0) + siemens)
  }
  for (const { a, b, ohm } of elements) if (a !== b) link(a, b, 1 / ohm)
  // Buckets by number of neighbours; an entry whose count is out of date is passed over when met.
  const buckets: number[][] = []
  const file = (node: number) => (buckets[around[node]!.size] ??= []).push(node)
  for (let n = 0; n < nodeCount; n++) file(n)
  const taken = new Uint8Array(nodeCount)
  const steps: Step[] = []
  for (let size = 0; size < buckets.length;) {
    const node = buckets[size]?.pop()
    if (node === undefined) size++
    if (node === undefined || taken[node] || around[node]!.size !== size) continue
    taken[node] = 1
    const neighbours = [...around[node]!]
    const total_S = neighbours.reduce((sum, [, g]) => sum + g, 0)
    steps.push({
      node,
      total_S,
      to: Int32Array.from(neighbours, ([n]) => n),
      share_S: Float64Array.from(neighbours, ([, g]) => g),
    })
    for (const [n] of neighbours) around[n]!.delete(node)
    neighbours.forEach(([n, g], i) => {
      for (const [m, h] of neighbours.slice(i + 1)) link(n, m, (g * h) / total_S)
    })
    for (const [n] of neighbours) file(n)
    size = Math.max(0, size - 1) // a neighbour lost one at most
  }
  return steps
}
