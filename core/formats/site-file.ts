import * as z from 'zod'
import { factsSchema, SCHEMA_VERSION, type Facts } from '../record'
import { accepted, parseWith, refusal, refused, type Outcome, type Refusal } from '../refusal'
import { brokenInvariants, entries, lookUp, siteSchema, type Site } from '../site'
import { canonicalJson } from './canonical'
import { FORMAT_NAME, upgrade } from './upgrade'

/** A whole property in one file: its site and everything ever read there. */
export const propertyFile = z.strictObject({
  format: z.literal(FORMAT_NAME),
  version: z.literal(SCHEMA_VERSION),
  id: z.uuid(),
  revision: z.int().min(0),
  site: siteSchema,
  ...factsSchema.shape,
})
export type PropertyFile = z.infer<typeof propertyFile>

/** A property as the product holds it. */
export interface Property {
  readonly id: string
  readonly revision: number
  readonly site: Site
  readonly facts: Facts
}

/** The file's text; reading it back gives the same property, and writing that gives the same bytes. */
export function writeProperty({ id, revision, site, facts }: Property): string {
  return canonicalJson({ format: FORMAT_NAME, version: SCHEMA_VERSION, id, revision, site, ...facts })
}

/** Reads a file's text. Refuses with everything that is wrong, up to the first stage that finds something. */
export function readProperty(text: string): Outcome<Property> {
  const json = parseJson(text)
  if (!json.ok) return json
  const lifted = upgrade(json.value)
  if (!lifted.ok) return lifted
  const parsed = parseWith(propertyFile, lifted.value)
  if (!parsed.ok) return parsed
  const { id, revision, site, visits, readings, strikeOuts, cautions, closings, acceptances, findings } = parsed.value
  const facts = { visits, readings, strikeOuts, cautions, closings, acceptances, findings }
  const broken = [
    ...brokenInvariants(site).map((r) => ({ ...r, path: ['site', ...r.path] })),
    ...brokenFacts(facts, site, revision),
  ]
  return broken.length > 0 ? refused(...broken.slice(0, 20)) : accepted({ id, revision, site, facts })
}

/** JSON text to a value; the refusal says where the text stops being JSON. */
export function parseJson(text: string): Outcome<unknown> {
  const plain = text.replace(/^\uFEFF/, '')
  if (plain.trim() === '') return refused(refusal('empty_file'))
  try {
    return accepted(JSON.parse(plain))
  } catch (error) {
    const at = /position (\d+)/.exec(String(error))
    const line = at ? plain.slice(0, Number(at[1])).split('\n').length : plain.split('\n').length
    return refused(refusal('not_json', [], { line }))
  }
}

function brokenFacts(facts: Facts, site: Site, revision: number): Refusal[] {
  const broken: Refusal[] = []
  for (const [id, v] of entries(facts.visits))
    if (!lookUp(site.controllers, v.controller))
      broken.push(
        refusal('points_nowhere', ['visits', id, 'controller'], { id: v.controller, collection: 'controllers' }),
      )
  for (const [id, r] of entries(facts.readings))
    if (r.revision > revision)
      broken.push(refusal('reading_ahead', ['readings', id, 'revision'], { revision: r.revision, latest: revision }))
  for (const name of ['readings', 'cautions', 'closings', 'findings'] as const) {
    for (const [id, fact] of Object.entries(facts[name]))
      if (!lookUp(facts.visits, fact.visit))
        broken.push(refusal('points_nowhere', [name, id, 'visit'], { id: fact.visit, collection: 'visits' }))
  }
  for (const name of ['strikeOuts', 'acceptances'] as const) {
    for (const [id, fact] of Object.entries(facts[name]))
      if (!lookUp(facts.readings, fact.reading))
        broken.push(refusal('points_nowhere', [name, id, 'reading'], { id: fact.reading, collection: 'readings' }))
  }
  return broken
}
