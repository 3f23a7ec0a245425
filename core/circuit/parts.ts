/** The connected part of every node, named by one of its nodes: union and find with halved paths. */
export function partsOf(
  nodeCount: number,
  pairs: readonly { readonly a: number; readonly b: number }[],
  without?: ReadonlySet<number>,
): Int32Array {
  const parent = Int32Array.from({ length: nodeCount }, (_, n) => n)
  for (let e = 0; e < pairs.length; e++)
    if (!without?.has(e)) parent[rootOf(parent, pairs[e]!.a)] = rootOf(parent, pairs[e]!.b)
  for (let n = 0; n < nodeCount; n++) parent[n] = rootOf(parent, n)
  return parent
}

function rootOf(parent: Int32Array, node: number): number {
  let at = node
  while (parent[at] !== at) {
    parent[at] = parent[parent[at]!]!
    at = parent[at]!
  }
  return at
}
