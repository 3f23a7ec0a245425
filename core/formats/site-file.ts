import * as z from 'zod'
import {
  factKinds,
  factsSchema,
  kindOf,
  ownerIdOf,
  revisionNumber,
  SCHEMA_VERSION,
  uuid,
  type AnyFact,
  type FactContext,
  type FactKind,
  type Facts,
} from '../record'
import { accepted, parseWith, refusal, refused, type Outcome, type Refusal } from '../refusal'
import { brokenInvariants, lookUp, MOST_RECORDS, recordCount, siteSchema, type Site } from '../site'
import { canonicalJson } from './canonical'
import { pathOfProto } from './hidden-key'
import { journal, type Journal } from './journal'
import { huntShownBy, type Lifted } from './lifts/jobs'
import { FORMAT_NAME, fileVersion, liftFact, liftSite } from './upgrade'

/** A whole property in one file: its site and everything ever read there, and where asked for how it came to be. */
export const propertyFile = z.strictObject({
  format: z.literal(FORMAT_NAME),
  version: z.literal(SCHEMA_VERSION),
  id: uuid,
  revision: revisionNumber,
  site: siteSchema,
  ...factsSchema.shape,
  journal: journal.optional(),
})
export type PropertyFile = z.infer<typeof propertyFile>

/** A property as the product holds it. */
export interface Property {
  readonly id: string
  readonly revision: number
  readonly site: Site
  readonly facts: Facts
  readonly journal?: Journal
}

/** The file's text; reading it back gives the same property, and writing that gives the same bytes. */
export function writeProperty({ id, revision, site, facts, journal }: Property): string {
  return canonicalJson({ format: FORMAT_NAME, version: SCHEMA_VERSION, id, revision, site, ...facts, journal })
}

/** Reads a file's text. Refuses with everything that is wrong, up to the first stage that finds something. */
export function readProperty(text: string): Outcome<Property> {
  const json = parseJson(text)
  if (!json.ok) return json
  if (typeof json.value !== 'object' || json.value === null || Array.isArray(json.value))
    return refused(refusal('not_our_file'))
  const file = json.value as Record<string, unknown>
  const version = fileVersion(file.format, file.version)
  if (!version.ok) return version
  const parsed = parseWith(propertyFile, lifted(file, version.value))
  if (!parsed.ok) return parsed
  const { id, revision, site, format: _format, version: _version, journal, ...facts } = parsed.value
  const broken = [...brokenSite(site), ...brokenFacts(facts, site, revision)]
  return broken.length > 0
    ? refused(...broken.slice(0, 20))
    : accepted({ id, revision, site, facts, ...(journal ? { journal } : {}) })
}

/** A file of an earlier version as the present one would have written it; its parts are still to be checked. */
function lifted(file: Record<string, unknown>, version: number): Record<string, unknown> {
  if (version === SCHEMA_VERSION) return file
  const old = factKinds.flatMap((kind): Lifted[] =>
    Object.entries(file[kindOf(kind).collection] ?? {}).map(([id, fact]) => ({ kind, id, fact })),
  )
  const hunts = new Set(old.map(({ kind, fact }) => huntShownBy(kind, fact)))
  const site = liftSite(version, file.site)
  const readable = siteSchema.safeParse(site)
  const beside = { site: readable.success ? readable.data : null, isHunt: (visit: string) => hunts.has(visit) }
  const facts: Record<string, Record<string, unknown>> = {}
  for (const { kind, id, fact } of old.flatMap((f) => liftFact(version, f.kind, f.id, f.fact, beside)))
    (facts[kindOf(kind).collection] ??= {})[id] = fact
  return { ...file, site, ...facts, version: SCHEMA_VERSION }
}

/** What is broken in a file's site, each path as it stands in the file. */
export function brokenSite(site: Site): Refusal[] {
  const records = recordCount(site)
  if (records > MOST_RECORDS) return [refusal('site_too_large', ['site'], { records, most: MOST_RECORDS })]
  return brokenInvariants(site).map((r) => ({ ...r, path: ['site', ...r.path] }))
}

/** JSON text to a value; the refusal says where the text stops being JSON. */
export function parseJson(text: string): Outcome<unknown> {
  const plain = text.replace(/^\uFEFF/, '')
  if (plain.trim() === '') return refused(refusal('empty_file'))
  try {
    const value: unknown = JSON.parse(plain)
    const hidden = plain.includes('__proto__') || plain.includes('\\u') ? pathOfProto(value) : null
    return hidden === null ? accepted(value) : refused(refusal('bad_key', hidden, { key: '__proto__' }))
  } catch (error) {
    const at = /position (\d+)/.exec(String(error))
    const line = at ? plain.slice(0, Number(at[1])).split('\n').length : plain.split('\n').length
    return refused(refusal('not_json', [], { line }))
  }
}

/** What facts of a site at a revision are held against. */
export const contextOf = (site: Site, revision: number): FactContext => ({
  revision,
  hasController: (id) => lookUp(site.controllers, id) !== undefined,
})

function brokenFacts(facts: Facts, site: Site, revision: number): Refusal[] {
  const context = contextOf(site, revision)
  return factKinds.flatMap((kind) => {
    const { collection, owner, misfit } = kindOf(kind)
    return Object.entries(facts[collection] as Record<string, AnyFact>).flatMap(([id, fact]) => {
      const wrong = misfit(fact, context)
      const ownerId = ownerIdOf(kind, fact)
      const nowhere = owner && !lookUp(facts[kindOf(owner.kind).collection], ownerId!)
      return [
        ...(wrong ? [{ ...wrong, path: [collection, id, ...wrong.path] }] : []),
        ...(nowhere ? [ownerMissing(collection, id, owner, ownerId!)] : []),
      ]
    })
  })
}

/** The refusal of a fact that hangs on nothing. */
export const ownerMissing = (
  collection: string,
  id: string,
  owner: { readonly kind: FactKind; readonly field: string },
  ownerId: string,
): Refusal =>
  refusal('points_nowhere', [collection, id, owner.field], {
    id: ownerId,
    collection: kindOf(owner.kind).collection,
  })
