/** Elements without a way around them, and which nodes lie beyond one as seen from where the search began. */
export interface Bridges {
  readonly has: (element: number) => boolean
  readonly beyond: (element: number, node: number) => boolean
}

/** Tarjan's low links, without recursion: a common is a long path. */
export function bridgesOf(nodeCount: number, parts: readonly { readonly a: number; readonly b: number }[]): Bridges {
  const around: { to: number; element: number }[][] = Array.from({ length: nodeCount }, () => [])
  parts.forEach(({ a, b }, element) => {
    if (a !== b) {
      around[a]!.push({ to: b, element })
      around[b]!.push({ to: a, element })
    }
  })
  const [seen, low, last] = [new Int32Array(nodeCount).fill(-1), new Int32Array(nodeCount), new Int32Array(nodeCount)]
  const bridges = new Map<number, number>()
  let clock = 0
  for (let start = 0; start < nodeCount; start++) {
    if (seen[start]! >= 0) continue
    const stack = [{ node: start, by: -1, next: 0 }]
    seen[start] = low[start] = clock++
    while (stack.length > 0) {
      const top = stack.at(-1)!
      const step = around[top.node]![top.next++]
      if (!step) {
        stack.pop()
        last[top.node] = clock - 1
        const under = stack.at(-1)
        if (!under) continue
        low[under.node] = Math.min(low[under.node]!, low[top.node]!)
        if (low[top.node]! > seen[under.node]!) bridges.set(top.by, top.node)
      } else if (step.element !== top.by) {
        if (seen[step.to]! >= 0) low[top.node] = Math.min(low[top.node]!, seen[step.to]!)
        else {
          seen[step.to] = low[step.to] = clock++
          stack.push({ node: step.to, by: step.element, next: 0 })
        }
      }
    }
  }
  return {
    has: (element) => bridges.has(element),
    beyond: (element, node) => {
      const far = bridges.get(element)!
      return seen[node]! >= seen[far]! && seen[node]! <= last[far]!
    },
  }
}
