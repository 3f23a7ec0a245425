/**
 * Where a value has a key `__proto__`, which readers would pass over in silence; null where nowhere.
 * @returns the keys that lead to it, from the value on
 */
export function pathOfProto(value: unknown): (string | number)[] | null {
  const waiting: { at: unknown; path: (string | number)[] }[] = [{ at: value, path: [] }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { at, path } = next
    if (typeof at !== 'object' || at === null) continue
    for (const [key, inner] of Object.entries(at)) {
      const there = [...path, Array.isArray(at) ? Number(key) : key]
      if (key === '__proto__') return there
      if (typeof inner === 'object' && inner !== null) waiting.push({ at: inner, path: there })
    }
  }
  return null
}
