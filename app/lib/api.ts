import * as z from 'zod'
import type { CompanyRecordKind, CompanyRecordOf, Looking } from '../../core/company'
import { factsSchema, procedure, type Presence, type Procedure } from '../../core/record'
import type { Refusal, RefusalCode } from '../../core/refusal'
import { command, siteSchema, write } from '../../core/site'

const refusals: z.ZodType<readonly Refusal[]> = z.array(
  z.object({
    // A newer server may know more of them: said by its code.
    code: z.custom<RefusalCode>((code) => typeof code === 'string'),
    path: z.array(z.union([z.string(), z.number()])),
    params: z.record(z.string(), z.union([z.string(), z.number()])),
  }),
)
const refusedBody = z.object({ refusals })

const listed = z.object({
  id: z.uuid(),
  name: z.string(),
  revision: z.int(),
  controllers: z.int(),
  stations: z.int(),
  visits: z.int(),
  lastVisit: z.string().nullable(),
  archived: z.boolean(),
  astray: z.int(),
  faults: z.int(),
  findings: z.int(),
  creeping: z.int(),
  creepsOn: z.string().nullable(),
  temporary: z.int(),
  temporaryUntil: z.string().nullable(),
  quotes: z.int(),
  quotedOn: z.string().nullable(),
  visitDue: z.string().nullable(),
  latitude_deg: z.number().nullable(),
  longitude_deg: z.number().nullable(),
})
export type Listed = z.infer<typeof listed>

const step = z.object({
  id: z.uuid(),
  revision: z.int(),
  author: z.string(),
  device: z.string(),
  at: z.string(),
  undoes: z.string().nullable(),
  writes: z.array(write),
})
export type Step = z.infer<typeof step>
const missedStep = step.extend({ commands: z.array(command) })

export const wholeSchema = z.object({
  id: z.uuid(),
  revision: z.int(),
  archived: z.boolean(),
  site: siteSchema,
  facts: factsSchema,
  steps: z.array(step),
})
export type Whole = z.infer<typeof wholeSchema>

const revisionSchema = z.object({ revision: z.int(), site: siteSchema })
export type Revision = z.infer<typeof revisionSchema>

const messageReply = z.discriminatedUnion('status', [
  z.object({ id: z.string().nullable(), status: z.literal('accepted'), revision: z.int().optional() }),
  z.object({ id: z.string().nullable(), status: z.literal('already'), revision: z.int().optional() }),
  z.object({ id: z.string().nullable(), status: z.literal('failed') }),
  z.object({ id: z.string().nullable(), status: z.literal('refused'), refusals }),
])
export type MessageReply = z.infer<typeof messageReply>

/**
 * An answer that was understood; a refusal with its reasons; a server that answers but could not do it; one whose words
 * this page does not know, being of another version; or nobody there.
 */
export type Reply<T> =
  | { readonly kind: 'ok'; readonly value: T }
  | { readonly kind: 'refused'; readonly status: number; readonly refusals: readonly Refusal[] }
  | { readonly kind: 'failed' }
  | { readonly kind: 'other_version' }
  | { readonly kind: 'unreachable' }

/** What a reply with this status and body is to the page. */
export function understood<S extends z.ZodType>(schema: S, status: number, body: unknown): Reply<z.output<S>> {
  const parsed = schema.safeParse(body)
  if (parsed.success) return { kind: 'ok', value: parsed.data }
  if (status < 400) return { kind: 'other_version' }
  if (status === 503) return { kind: 'unreachable' }
  if (status >= 500) return { kind: 'failed' }
  const refused = refusedBody.safeParse(body)
  return refused.success ? { kind: 'refused', status, refusals: refused.data.refusals } : { kind: 'failed' }
}

/** Asks the server, and understands what it answers. */
export async function ask<S extends z.ZodType>(
  schema: S,
  path: string,
  init?: RequestInit,
  patience_ms = 20_000,
): Promise<Reply<z.output<S>>> {
  let reply: Response
  try {
    reply = await fetch(path, {
      ...init,
      headers: { ...(init?.body ? { 'content-type': 'application/json' } : {}) },
      signal: AbortSignal.timeout(patience_ms),
    })
  } catch {
    return { kind: 'unreachable' }
  }
  try {
    return understood(schema, reply.status, await reply.json())
  } catch {
    // Cut off on its way, or not a word of ours: a stranger between us and the server.
    return { kind: reply.status < 400 || reply.status === 503 ? 'unreachable' : 'failed' }
  }
}

const at = (id: string) => `/api/properties/${encodeURIComponent(id)}`
/** A large property over a thin line takes its time. */
const PATIENCE_WHOLE_ms = 120_000

/** So many properties of the list come at once. */
export const LIST_WINDOW = 100
/** A window of the list, with how many properties there are in all, and how many ask for somebody with each need. */
export const fetchProperties = (
  { find, need, sort, down }: Looking,
  archived: boolean,
  offset: number,
  today: string,
) =>
  ask(
    z.object({ properties: z.array(listed), total: z.int(), needs: z.record(z.string(), z.int()) }),
    `/api/properties?${new URLSearchParams({
      find,
      ...(need === null ? {} : { need }),
      sort,
      down: down ? 'yes' : 'no',
      archived: archived ? 'yes' : 'no',
      offset: String(offset),
      limit: String(LIST_WINDOW),
      today,
    })}`,
  )

const taken = z.object({ code: z.string(), count: z.int(), usual_min: z.number(), taken_min: z.number() })
/** How long repairs really took, over all properties of the company. */
export const fetchTakenMinutes = () => ask(z.object({ taken: z.array(taken) }), '/api/minutes')

/** What the company keeps of a kind; revision 0 and null where it keeps none. */
export const fetchCompanyRecord = <K extends CompanyRecordKind>(kind: K, schema: z.ZodType<CompanyRecordOf<K>>) =>
  ask(z.object({ revision: z.int(), record: schema.nullable() }), `/api/company/${kind}`)
export const putCompanyRecord = <K extends CompanyRecordKind>(kind: K, base: number, record: CompanyRecordOf<K>) =>
  ask(z.object({ revision: z.int() }), `/api/company/${kind}`, {
    method: 'PUT',
    body: JSON.stringify({ base, record }),
  })
export const fetchProperty = (id: string) => ask(wholeSchema, at(id), undefined, PATIENCE_WHOLE_ms)
export const fetchRevision = (id: string, revision: number) => ask(revisionSchema, `${at(id)}/revisions/${revision}`)
export const fetchSteps = (id: string, before: number) =>
  ask(z.object({ steps: z.array(step) }), `${at(id)}/steps?before=${before}`)
/** What this page has missed: the changes after a revision, the earliest first. */
export const fetchMissed = (id: string, after: number) =>
  ask(z.object({ steps: z.array(missedStep) }), `${at(id)}/steps?after=${after}`)
export const postMessages = (property: string, messages: readonly unknown[]) =>
  ask(z.object({ replies: z.array(messageReply) }), `${at(property)}/messages`, {
    method: 'POST',
    body: JSON.stringify({ messages }),
  })
/** Says that one is there; a page that goes away says it too. */
export const putHere = (id: string, who: Presence) =>
  fetch(`${at(id)}/here`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(who),
    keepalive: true,
  })
/** Takes a new property in. */
export const postProperty = (text: string) =>
  ask(z.object({ id: z.uuid() }), '/api/properties', { method: 'POST', body: text })
export const putArchived = (id: string, archived: boolean) =>
  ask(z.object({ archived: z.boolean() }), `${at(id)}/archive`, { method: 'PUT', body: JSON.stringify({ archived }) })
export const deleteProperty = (id: string) => ask(z.object({ deleted: z.uuid() }), at(id), { method: 'DELETE' })

const ownProcedure = z.object({ revision: z.int(), procedure })
export type ServedProcedure = z.infer<typeof ownProcedure>
const atProcedure = (id: string) => `/api/procedures/${encodeURIComponent(id)}`
/** The procedures that the company wrote for itself. */
export const fetchProcedures = () => ask(z.object({ procedures: z.array(ownProcedure) }), '/api/procedures')
/** Keeps a procedure in place of the revision it began from. */
export const putProcedure = (base: number, kept: Procedure) =>
  ask(z.object({ revision: z.int() }), atProcedure(kept.id), {
    method: 'PUT',
    body: JSON.stringify({ base, procedure: kept }),
  })
export const deleteProcedure = (id: string, base: number) =>
  ask(z.object({ revision: z.int() }), `${atProcedure(id)}?base=${base}`, { method: 'DELETE' })

export const fileAddress = (id: string, what: { pictures: boolean; journal: boolean }) =>
  `${at(id)}/file?as=${what.pictures ? 'zip' : 'json'}&journal=${what.journal ? 'yes' : 'no'}`
/** Sends a picture under its SHA-256; false where it did not arrive. */
export const putPicture = async (id: string, sha256: string, blob: Blob): Promise<boolean> =>
  (
    await fetch(pictureAddress(id, sha256), {
      method: 'PUT',
      headers: { 'content-type': blob.type || 'application/octet-stream' },
      body: blob,
    }).catch(() => null)
  )?.ok ?? false
export const pictureAddress = (id: string, sha256: string) => `${at(id)}/pictures/${sha256}`
