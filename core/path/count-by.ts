/** How many there are of each kind, in the order in which kinds are first met, with one of it. */
export function countBy<T>(list: readonly T[], kindOf: (of: T) => string): Map<string, { one: T; count: number }> {
  const counts = new Map<string, { one: T; count: number }>()
  for (const one of list) {
    const known = counts.get(kindOf(one))
    counts.set(kindOf(one), { one: known?.one ?? one, count: (known?.count ?? 0) + 1 })
  }
  return counts
}
