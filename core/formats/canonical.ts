/**
 * JSON with one spelling per value: keys sorted (`byKey`), two-space indent, shortest numbers that read back the
 * same, `\n` at the end. Equal values give equal bytes, so files can be compared and kept under version control.
 * @throws RangeError for what JSON cannot hold (NaN, infinity)
 */
export function canonicalJson(value: unknown): string {
  return `${canonicalPart(value, '')}\n`
}

/** The same for a part of a larger text: without the last line's end, every further line behind `indent`. */
export function canonicalPart(value: unknown, indent: string): string {
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) throw new RangeError(`canonicalJson: ${value} has no JSON form`)
    return JSON.stringify(value === 0 ? 0 : value)
  }
  if (typeof value !== 'object' || value === null) return JSON.stringify(value)
  const inner = `${indent}  `
  if (Array.isArray(value)) {
    const parts = value.map((v) => canonicalPart(v, inner))
    return parts.length === 0 ? '[]' : `[\n${inner}${parts.join(`,\n${inner}`)}\n${indent}]`
  }
  const parts = Object.entries(value)
    .filter(([, v]) => v !== undefined)
    .sort(([a], [b]) => byKey(a, b))
    .map(([k, v]) => `${JSON.stringify(k)}: ${canonicalPart(v, inner)}`)
  return parts.length === 0 ? '{}' : `{\n${inner}${parts.join(`,\n${inner}`)}\n${indent}}`
}

/** The order of keys: whole numbers as numbers, as they come in an object anyway, then the rest by code unit. */
export function byKey(a: string, b: string): number {
  const [ofA, ofB] = [isIndex(a), isIndex(b)]
  if (ofA !== ofB) return ofA ? -1 : 1
  if (ofA && a.length !== b.length) return a.length - b.length
  return a < b ? -1 : a > b ? 1 : 0
}

/** Nine digits are enough to tell: longer ones sort by code unit after those. */
const isIndex = (key: string) => /^(0|[1-9][0-9]{0,8})$/.test(key)
