import { accepted, parseWith, refusal, refused, type Outcome, type Refusal } from '../refusal'
import type { Command } from './command'
import { lookUp } from './look-up'
import { settings } from './settings'
import { about, COLLECTIONS, fieldsOf, type CollectionName, type Site } from './site'

type Records = Record<string, Record<string, unknown>>

/**
 * A site under change: each collection and record is copied when it is first written, so that a batch costs as much as
 * what it writes and not as much as the site, however many commands it has. The site given is not changed.
 *
 * A `set` checks its own field at once; rules that tie fields of one record together are checked by `finish`.
 */
export class WorkingSite {
  private next: Site
  private readonly copied = new Set<CollectionName>()
  /** Records that a `set` has written into, and the command that did so first. */
  private readonly edited = new Map<string, { name: CollectionName; id: string; command: number }>()
  private commands = 0

  constructor(site: Site) {
    this.next = { ...site }
  }

  /** Takes one command in; null where it could be, else what stands in its way. */
  run(command: Command): readonly Refusal[] | null {
    const index = this.commands++
    switch (command.do) {
      case 'create':
        return this.create(command.in, command.id, command.record)
      case 'set':
        return this.set(command.in, command.id, command.field, command.value, index)
      case 'remove': {
        if (!lookUp(this.next[command.in], command.id)) return [refusal('no_such_record', [command.in, command.id])]
        delete this.own(command.in)[command.id]
        this.edited.delete(keyOf(command.in, command.id))
        return null
      }
      case 'setAbout':
        return this.setPart('about', command.field, command.value)
      case 'setSetting':
        return this.setPart('settings', command.field, command.value)
    }
  }

  /** The site as it is now, each edited record held against the whole of its schema. */
  finish(): Outcome<Site> {
    const refusals: Refusal[] = []
    for (const { name, id, command } of this.edited.values()) {
      const parsed = parseWith(COLLECTIONS[name].record, lookUp(this.next[name], id), [name, id])
      if (parsed.ok) this.own(name)[id] = parsed.value
      else refusals.push(...parsed.refusals.map((r) => ({ ...r, params: { ...r.params, command } })))
    }
    return refusals.length > 0 ? refused(...refusals) : accepted(this.next)
  }

  private own(name: CollectionName): Records {
    if (!this.copied.has(name)) {
      this.next = { ...this.next, [name]: { ...this.next[name] } }
      this.copied.add(name)
    }
    return this.next[name] as Records
  }

  private create(name: CollectionName, id: string, record: unknown): readonly Refusal[] | null {
    const at = [name, id]
    if (lookUp(this.next[name], id)) return [refusal('already_there', at)]
    if (!parseWith(COLLECTIONS[name].id, id).ok) return [refusal('bad_key', at, { key: id })]
    const parsed = parseWith(COLLECTIONS[name].record, record, at)
    if (!parsed.ok) return parsed.refusals
    this.own(name)[id] = parsed.value
    return null
  }

  private set(
    name: CollectionName,
    id: string,
    field: string,
    value: unknown,
    command: number,
  ): readonly Refusal[] | null {
    const old = lookUp(this.next[name], id) as Record<string, unknown> | undefined
    if (!old) return [refusal('no_such_record', [name, id])]
    const fields = fieldsOf(name, old)
    if (!Object.hasOwn(fields, field)) return [refusal('unknown_field', [name, id, field], { field })]
    const parsed = parseWith(fields[field]!, value, [name, id, field])
    if (!parsed.ok) return parsed.refusals
    const key = keyOf(name, id)
    const records = this.own(name)
    if (this.edited.has(key)) records[id]![field] = parsed.value
    else {
      records[id] = { ...old, [field]: parsed.value }
      this.edited.set(key, { name, id, command })
    }
    return null
  }

  private setPart(part: 'about' | 'settings', field: string, value: unknown): readonly Refusal[] | null {
    const schema = part === 'about' ? about : settings
    if (!Object.hasOwn(schema.shape, field)) return [refusal('unknown_field', [part, field], { field })]
    const parsed = parseWith(schema, { ...this.next[part], [field]: value }, [part])
    if (!parsed.ok) return parsed.refusals
    this.next = { ...this.next, [part]: parsed.value }
    return null
  }
}

const keyOf = (name: CollectionName, id: string) => `${name}/${id}`
