/** The record under an id, or undefined; never something inherited such as `constructor`. */
export function lookUp<R extends object>(records: R, id: string): R[keyof R] | undefined {
  return Object.hasOwn(records, id) ? records[id as keyof R] : undefined
}

/** The record under an id that the site's invariants promise to be there. */
export function getOrThrow<R extends object>(records: R, id: string): R[keyof R] {
  const record = lookUp(records, id)
  if (record === undefined) throw new Error(`must: no record ${id}; the site was not checked against its invariants`)
  return record
}

/** Entries with the key's own type kept. */
export function entries<K extends string, T>(records: Readonly<Record<K, T>>): [K, T][] {
  return Object.entries(records) as [K, T][]
}

/** Tags and names in the order people count: 2 before 10. */
export function byTag(a: string, b: string): number {
  return a.localeCompare(b, 'en', { numeric: true })
}
