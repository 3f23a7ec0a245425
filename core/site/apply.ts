import { accepted, refusal, refused, type Outcome } from '../refusal'
import type { Command, Write } from './command'
import { brokenInvariants } from './invariants'
import { COLLECTIONS, fieldsOf, type CollectionName, type Site } from './site'
import { WorkingSite } from './working'

/**
 * One command on a site; the site given is not changed. References between records are not looked at here, so that a
 * batch may create a splice before the cable it joins: `applyBatch` looks at the whole.
 */
export function apply(site: Site, command: Command): Outcome<Site> {
  const working = new WorkingSite(site)
  const refusals = working.run(command)
  return refusals ? refused(...refusals) : working.finish()
}

/**
 * The most records a site holds in all. A large campus has some ten thousand; past a hundred thousand the document is
 * no longer read and checked within a second.
 */
export const MOST_RECORDS = 100_000

/** A batch's result: the new site, and what was written where, in the order of first touch. */
export interface Applied {
  readonly site: Site
  readonly writes: readonly Write[]
}

/**
 * All commands or none. The resulting site keeps every invariant, or the batch is refused with all that it would break.
 */
export function applyBatch(site: Site, commands: readonly Command[]): Outcome<Applied> {
  const working = new WorkingSite(site)
  for (const [index, command] of commands.entries()) {
    const refusals = working.run(command)
    if (refusals) return refused(...refusals.map((r) => ({ ...r, params: { ...r.params, command: index } })))
  }
  const finished = working.finish()
  if (!finished.ok) return finished
  const next = finished.value
  const records = recordCount(next)
  if (records > MOST_RECORDS) return refused(refusal('site_too_large', [], { records, most: MOST_RECORDS }))
  const broken = brokenInvariants(next)
  return broken.length > 0 ? refused(...broken) : accepted({ site: next, writes: writesBetween(site, next, commands) })
}

/** Records of all collections together. */
export const recordCount = (site: Site): number =>
  Object.keys(COLLECTIONS).reduce((sum, name) => sum + Object.keys(site[name as CollectionName]).length, 0)

function writesBetween(before: Site, after: Site, commands: readonly Command[]): Write[] {
  const writes = new Map<string, Write>()
  const note = (path: string[]) => {
    const was = valueAt(before, path)
    const is = valueAt(after, path)
    if (!sameJson(was, is)) writes.set(path.join('/'), { path, before: was, after: is })
  }
  for (const command of commands) {
    if (command.do === 'setAbout') note(['about', command.field])
    else if (command.do === 'setSetting') note(['settings', command.field])
    else {
      const [was, is] = [valueAt(before, [command.in, command.id]), valueAt(after, [command.in, command.id])]
      if (was === null || is === null) note([command.in, command.id])
      else if (command.do === 'set') note([command.in, command.id, command.field])
      else for (const field of Object.keys(fieldsOf(command.in))) note([command.in, command.id, field])
    }
  }
  return [...writes.values()]
}

/** What stands at a write's address: a record or null, or a field's value (null where its record is gone). */
export function valueAt(site: Site, path: readonly string[]): unknown {
  let value: unknown = site
  for (const step of path) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, step)) return null
    value = (value as Record<string, unknown>)[step]
  }
  return value
}

/** Equality of JSON values; the order of keys does not matter, nor the sign of nought, which JSON does not keep. */
export function sameJson(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) !== Array.isArray(b)) return false
  const [keysA, keysB] = [Object.keys(a), Object.keys(b)]
  return (
    keysA.length === keysB.length &&
    keysA.every(
      (key) =>
        Object.hasOwn(b, key) && sameJson((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
    )
  )
}
