import { liftSite } from '../../core/formats'
import { SCHEMA_VERSION } from '../../core/record'
import { accepted, parseWith, refusal, refused, type Outcome } from '../../core/refusal'
import { siteSchema, type Site } from '../../core/site'
import type { Within } from './actor'

/** A property's present state: its site, and what tells this state from any other. */
export interface PresentSite {
  readonly site: Site
  readonly revision: number
}

/** A document read once stays at hand until it changes: sites are never changed in place. */
interface Held extends PresentSite {
  readonly made: number
  readonly bytes: number
}
const held = new Map<string, Held>()
const MOST_HELD_BYTES = 64_000_000

/** Whoever was asked for longest ago goes first; one document is kept however large it is. */
function hold(key: string, state: Held): void {
  held.delete(key)
  held.set(key, state)
  let bytes = [...held.values()].reduce((sum, h) => sum + h.bytes, 0)
  for (const [oldest, { bytes: freed }] of held) {
    if (bytes <= MOST_HELD_BYTES || held.size === 1) return
    held.delete(oldest)
    bytes -= freed
  }
}

/** The property's row without its document; `lock` keeps changes (`update`) or its removal (`share`) waiting. */
export function findProperty({ tx, actor }: Within, id: string, lock?: 'update' | 'share') {
  const row = tx
    .selectFrom('properties')
    .select(['revision', 'created_at', 'archived_at'])
    .where('company', '=', actor.company)
    .where('id', '=', id)
  // What only adds facts is not kept waiting by a change: it holds no more than the row's key.
  return (lock === 'update' ? row.forNoKeyUpdate() : lock === 'share' ? row.forShare() : row).executeTakeFirst()
}

/**
 * The site as it is now, read and checked once a revision. Null where there is no such property; refused where what
 * is stored cannot be read.
 */
export async function presentSite(
  within: Within,
  id: string,
  lock?: 'update' | 'share',
): Promise<Outcome<PresentSite> | null> {
  const { tx, actor } = within
  const row = await findProperty(within, id, lock)
  if (!row) return null
  const key = `${actor.company} ${id}`
  // The moment it came in tells a property from one that was deleted and taken in again at the same revision.
  const made = row.created_at.getTime()
  const known = held.get(key)
  if (known?.revision === row.revision && known.made === made) {
    hold(key, known)
    return accepted(known)
  }
  const stored = await tx
    .selectFrom('properties')
    .select((eb) => ['schema_version', 'revision', eb.cast<string>('site', 'text').as('site')])
    .where('company', '=', actor.company)
    .where('id', '=', id)
    .executeTakeFirstOrThrow()
  const read = readStoredSite(stored.schema_version, JSON.parse(stored.site))
  if (!read.ok) return read
  const state = { site: read.value, revision: stored.revision, made, bytes: stored.site.length }
  hold(key, state)
  return accepted(state)
}

/** Keeps what a change made, so that the next one need not read it again. */
export function holdChanged({ actor }: Within, id: string, site: Site, revision: number, bytes: number): void {
  const key = `${actor.company} ${id}`
  const before = held.get(key)
  if (before) hold(key, { site, revision, made: before.made, bytes })
}

/** A stored site as the version that wrote it meant it. */
export function readStoredSite(version: number, stored: unknown): Outcome<Site> {
  if (version > SCHEMA_VERSION) return refused(refusal('newer_record', ['site'], { version, latest: SCHEMA_VERSION }))
  return parseWith(siteSchema, liftSite(version, stored), ['site'])
}

/**
 * The document unchecked, as the present version would have it: for its file, where it cannot be read. One of a later
 * version stays as it is and keeps that version.
 */
export async function storedSite({ tx, actor }: Within, id: string) {
  const { revision, schema_version, site } = await tx
    .selectFrom('properties')
    .select(['revision', 'schema_version', 'site'])
    .where('company', '=', actor.company)
    .where('id', '=', id)
    .executeTakeFirstOrThrow()
  const lifted = liftSite(schema_version, site) as Site
  return { revision, version: Math.max(schema_version, SCHEMA_VERSION), site: lifted }
}
