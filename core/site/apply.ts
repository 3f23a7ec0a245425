import { accepted, parseWith, refusal, refused, type Outcome } from '../refusal'
import type { Command, Write } from './command'
import { brokenInvariants } from './invariants'
import { lookUp } from './look-up'
import { about, COLLECTIONS, type CollectionName, type Site } from './site'
import { settings } from './settings'

type AnyRecords = Record<string, Record<string, unknown>>

/**
 * One command on a site; the site given is not changed. References between records are not looked at here, so that a
 * batch may create a splice before the cable it joins: `applyBatch` looks at the whole.
 */
export function apply(site: Site, command: Command): Outcome<Site> {
  switch (command.do) {
    case 'create': {
      if (lookUp(site[command.in], command.id)) return refused(refusal('already_there', [command.in, command.id]))
      return withRecord(site, command.in, command.id, command.record, [command.in, command.id])
    }
    case 'set': {
      const old = lookUp(site[command.in], command.id)
      if (!old) return refused(refusal('no_such_record', [command.in, command.id]))
      if (!Object.hasOwn(COLLECTIONS[command.in].record.shape, command.field))
        return refused(refusal('unknown_field', [command.in, command.id, command.field], { field: command.field }))
      return withRecord(site, command.in, command.id, { ...old, [command.field]: command.value }, [
        command.in,
        command.id,
      ])
    }
    case 'remove': {
      if (!lookUp(site[command.in], command.id)) return refused(refusal('no_such_record', [command.in, command.id]))
      const { [command.id]: _gone, ...rest } = site[command.in] as AnyRecords
      return accepted({ ...site, [command.in]: rest })
    }
    case 'setAbout':
      return withField(site, 'about', command.field, command.value)
    case 'setSetting':
      return withField(site, 'settings', command.field, command.value)
  }
}

function withRecord(site: Site, name: CollectionName, id: string, record: unknown, at: string[]): Outcome<Site> {
  const key = parseWith(COLLECTIONS[name].id, id)
  if (!key.ok) return refused(refusal('bad_key', at, { key: id }))
  const parsed = parseWith(COLLECTIONS[name].record, record, at)
  return parsed.ok ? accepted({ ...site, [name]: { ...site[name], [id]: parsed.value } }) : parsed
}

function withField(site: Site, part: 'about' | 'settings', field: string, value: unknown): Outcome<Site> {
  const schema = part === 'about' ? about : settings
  if (!Object.hasOwn(schema.shape, field)) return refused(refusal('unknown_field', [part, field], { field }))
  const parsed = parseWith(schema, { ...site[part], [field]: value }, [part])
  return parsed.ok ? accepted({ ...site, [part]: parsed.value }) : parsed
}

/** A batch's result: the new site, and what was written where, in the order of first touch. */
export interface Applied {
  readonly site: Site
  readonly writes: readonly Write[]
}

/**
 * All commands or none. The resulting site keeps every invariant, or the batch is refused with all that it would break.
 */
export function applyBatch(site: Site, commands: readonly Command[]): Outcome<Applied> {
  let next = site
  for (const [index, command] of commands.entries()) {
    const step = apply(next, command)
    if (!step.ok) return refused(...step.refusals.map((r) => ({ ...r, params: { ...r.params, command: index } })))
    next = step.value
  }
  const broken = brokenInvariants(next)
  return broken.length > 0 ? refused(...broken) : accepted({ site: next, writes: writesBetween(site, next, commands) })
}

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
      else for (const field of Object.keys(COLLECTIONS[command.in].record.shape)) note([command.in, command.id, field])
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

/** Equality of JSON values; the order of keys does not matter. */
export function sameJson(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true
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
