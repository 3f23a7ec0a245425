import {
  apply,
  createRecord,
  end,
  endKey,
  entries,
  lookUp,
  getOrThrow,
  setField,
  type CableId,
  type Command,
  type CoreId,
  type End,
  type PlaceId,
  type Site,
  type SpliceId,
} from '../site'
import type { CollectionName, FieldOf, RecordOf, ValueOf } from '../site'

/** A plan being changed: the site so far. */
export interface Work {
  site: Site
}

/** Does one command. A refusal is this room's own mistake: what people write has been looked at before. */
export function act(work: Work, command: Command): void {
  const next = apply(work.site, command)
  if (!next.ok) throw new Error(`act: ${JSON.stringify(command)} is refused: ${JSON.stringify(next.refusals)}`)
  work.site = next.value
}

export const create = <K extends CollectionName>(work: Work, into: K, id: string, record: RecordOf<K>) =>
  act(work, createRecord(into, id, record))
export const set = <K extends CollectionName, F extends FieldOf<K>>(
  work: Work,
  collection: K,
  id: string,
  field: F,
  value: ValueOf<K, F>,
) => act(work, setField(collection, id, field, value))
export const remove = (work: Work, collection: CollectionName, id: string) =>
  act(work, { do: 'remove', in: collection, id })

/** An id that is free in a collection, made from what the thing is called. */
export function freeId(site: Site, collection: CollectionName, wanted: string): string {
  return freeKey(site[collection], wanted)
}

/** A key that is free among records, of the letters that ids may have. */
export function freeKey(records: object, wanted: string): string {
  const plain =
    wanted
      .replace(/[^A-Za-z0-9_-]+/g, '-')
      .replace(/^[^A-Za-z0-9]+/, '')
      .slice(0, 50) || 'x'
  let id = plain
  for (let n = 2; lookUp(records, id) !== undefined; n++) id = `${plain}-${n}`
  return id
}

export const coreEnd = (cable: CableId, core: CoreId, stop: string, side: 'arrives' | 'leaves'): End =>
  end.parse({ kind: 'core', cable, core, stop, side })
export const portEnd = (device: string, port: string): End => end.parse({ kind: 'port', device, port })

/** The joint that holds an end, or null. */
export function jointOf(site: Site, wanted: End): SpliceId | null {
  const key = endKey(wanted)
  return entries(site.splices).find(([, s]) => s.ends.some((e) => endKey(e) === key))?.[0] ?? null
}

/** Joins ends at a place: into the joint that holds the first of them, else into a new one. */
export function join(work: Work, place: PlaceId, ends: readonly End[]): void {
  const there = ends.map((e) => jointOf(work.site, e)).find((j) => j !== null) ?? null
  if (there === null) {
    const landing = ends.some((e) => e.kind === 'terminal')
    create(work, 'splices', freeId(work.site, 'splices', `${getOrThrow(work.site.places, place).tag}-j`), {
      place,
      connector: landing ? 'terminal' : 'unknown',
      ends: [...ends],
    })
    return
  }
  const splice = getOrThrow(work.site.splices, there)
  const held = new Set(splice.ends.map(endKey))
  const more = ends.filter((e) => !held.has(endKey(e)))
  for (const e of more) part(work, e)
  if (splice.connector === 'cap') set(work, 'splices', there, 'connector', 'unknown')
  set(work, 'splices', there, 'ends', [...splice.ends, ...more])
}

/**
 * Takes an end out of its joint; a joint left with nothing, a landing left with its terminal alone, and a connector
 * left with the jumper that led to it alone go.
 */
export function part(work: Work, wanted: End): void {
  const id = jointOf(work.site, wanted)
  if (id === null) return
  const splice = getOrThrow(work.site.splices, id)
  const left = splice.ends.filter((e) => endKey(e) !== endKey(wanted))
  const landing = splice.connector === 'terminal'
  const [last] = left
  if (
    left.length === 1 &&
    last?.kind === 'core' &&
    last.cable !== (wanted as { cable?: CableId }).cable &&
    getOrThrow(work.site.cables, last.cable).kind === 'jumper'
  ) {
    const { cable } = last
    remove(work, 'splices', id)
    for (const stop of getOrThrow(work.site.cables, cable).stops)
      for (const side of ['arrives', 'leaves'] as const) part(work, coreEnd(cable, last.core, stop.id, side))
    remove(work, 'cables', cable)
    return
  }
  if (left.length === 0 || (landing && !left.some((e) => e.kind !== 'terminal'))) {
    remove(work, 'splices', id)
    return
  }
  if (landing && !left.some((e) => e.kind === 'terminal'))
    set(work, 'splices', id, 'connector', left.length === 1 ? 'cap' : 'unknown')
  else if (!landing && left.length === 1) set(work, 'splices', id, 'connector', 'cap')
  set(work, 'splices', id, 'ends', left)
}
