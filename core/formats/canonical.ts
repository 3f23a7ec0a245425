/**
 * JSON with one spelling per value: keys sorted by code unit, two-space indent, shortest numbers that read back the
 * same, `\n` at the end. Equal values give equal bytes, so files can be compared and kept under version control.
 * @throws RangeError for what JSON cannot hold (NaN, infinity)
 */
export function canonicalJson(value: unknown): string {
  return `${JSON.stringify(sorted(value), null, 2)}\n`
}

function sorted(value: unknown): unknown {
  if (typeof value === 'number' && !Number.isFinite(value))
    throw new RangeError(`canonicalJson: ${value} has no JSON form`)
  if (Object.is(value, -0)) return 0
  if (Array.isArray(value)) return value.map(sorted)
  if (typeof value !== 'object' || value === null) return value
  // Object.fromEntries puts integer-like keys first whatever the order given; those sort so among themselves as well.
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, sorted(v)]),
  )
}
