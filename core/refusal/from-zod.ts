import type * as z from 'zod'
import { accepted, refusal, type Outcome, type Path, type Refusal } from './refusal'

/** The most refusals one document gets: past that, more lines help nobody. */
const MOST = 20

type Issue = z.core.$ZodIssue

/**
 * Parses with a schema and turns what it finds into refusals with codes of our own.
 * @param at where in its document the value stands
 */
export function parseWith<S extends z.ZodType>(schema: S, value: unknown, at: Path = []): Outcome<z.output<S>> {
  const parsed = schema.safeParse(value)
  if (parsed.success) return accepted(parsed.data)
  const refusals = parsed.error.issues.flatMap((issue) => fromIssue(issue, value, at))
  return { ok: false, refusals: refusals.slice(0, MOST) }
}

function fromIssue(issue: Issue, root: unknown, at: Path): Refusal[] {
  const inner = issue.path.map((step) => (typeof step === 'number' ? step : String(step)))
  const path = [...at, ...inner]
  switch (issue.code) {
    case 'invalid_type':
      return [
        lookUp(root, inner) === undefined
          ? refusal('missing', path, { expected: issue.expected })
          : refusal('wrong_type', path, { expected: issue.expected, found: kindOf(lookUp(root, inner)) }),
      ]
    case 'unrecognized_keys':
      return issue.keys.map((key) => refusal('unknown_field', [...path, key], { field: key }))
    case 'invalid_value':
      return [refusal('not_one_of', path, { options: issue.values.map(String).join(', ') })]
    case 'too_small':
      return [refusal('too_small', path, { minimum: String(issue.minimum), of: issue.origin })]
    case 'too_big':
      return [refusal('too_big', path, { maximum: String(issue.maximum), of: issue.origin })]
    case 'invalid_union':
      return fromUnion(issue, root, inner, at)
    case 'invalid_key':
      return [refusal('bad_key', path, { key: String(inner.at(-1) ?? '') })]
    default:
      return [refusal('bad_value', path, { rule: issue.message })]
  }
}

/** Of a union's branches the one that came furthest is the one that was meant. */
function fromUnion(
  issue: Extract<Issue, { code: 'invalid_union' }>,
  root: unknown,
  inner: (string | number)[],
  at: Path,
): Refusal[] {
  const value = lookUp(root, inner)
  if (value === undefined) return [refusal('missing', [...at, ...inner], { expected: 'value' })]
  const branches = issue.errors.map((errors) => errors.flatMap((e) => fromIssue(e, value, [...at, ...inner])))
  const misfits = (branch: Refusal[]) =>
    branch.length +
    branch.filter((r) => r.code === 'unknown_field' || r.path.length === at.length + inner.length).length
  const meant = branches.filter((b) => b.length > 0).sort((a, b) => misfits(a) - misfits(b))[0]
  return meant ?? [refusal('bad_value', [...at, ...inner], { rule: issue.message })]
}

function lookUp(root: unknown, path: readonly (string | number)[]): unknown {
  let value = root
  for (const step of path) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, step)) return undefined
    value = (value as Record<string | number, unknown>)[step]
  }
  return value
}

function kindOf(value: unknown): string {
  if (value === null) return 'null'
  return Array.isArray(value) ? 'array' : typeof value
}
