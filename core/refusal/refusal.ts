import type { RefusalCode } from './codes'

/** Where in a document something is: field names and list positions, outermost first. */
export type Path = readonly (string | number)[]

/**
 * Something about a field, as data. `code` names the rule, `path` the field, `params` the figures and names that the
 * sentence needs; the sentence itself is made by words/.
 */
export interface Coded<Code extends string> {
  readonly code: Code
  readonly path: Path
  readonly params: Readonly<Record<string, string | number>>
}

/** What stands in the way. */
export type Refusal = Coded<RefusalCode>

export type Outcome<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusals: readonly Refusal[] }

export const accepted = <T>(value: T): Outcome<T> => ({ ok: true, value })
export const refused = (...refusals: readonly Refusal[]): Outcome<never> => ({ ok: false, refusals })
export const coded = <Code extends string>(
  code: Code,
  path: Path = [],
  params: Coded<Code>['params'] = {},
): Coded<Code> => ({ code, path, params })
export const refusal = (code: RefusalCode, path?: Path, params?: Refusal['params']): Refusal =>
  coded(code, path, params)

/** A path as people read it: `splices.s3.ends[2]`; the document itself is `(whole)`. */
export function pathText(path: Path): string {
  const text = path.map((step) => (typeof step === 'number' ? `[${step}]` : `.${step}`)).join('')
  return text === '' ? '(whole)' : text.replace(/^\./, '')
}

/** Closes a switch over a union: reaching it is a programmer's mistake. */
export function unreachable(value: never): never {
  throw new Error(`unhandled case ${JSON.stringify(value)}`)
}
