import * as z from 'zod'
import { factsSchema } from '../../core/record'
import type { Refusal } from '../../core/refusal'
import { command, siteSchema, write } from '../../core/site'

const refusals: z.ZodType<readonly Refusal[]> = z.array(
  z.object({
    code: z.string(),
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

const whole = z.object({ id: z.uuid(), revision: z.int(), site: siteSchema, facts: factsSchema, steps: z.array(step) })
export type Whole = z.infer<typeof whole>

const revisionSchema = z.object({ revision: z.int(), site: siteSchema })
export type Revision = z.infer<typeof revisionSchema>

const messageReply = z.discriminatedUnion('status', [
  z.object({
    id: z.string().nullable(),
    status: z.literal('accepted'),
    revision: z.int().optional(),
    writes: z.array(write).optional(),
  }),
  z.object({
    id: z.string().nullable(),
    status: z.literal('already'),
    revision: z.int().optional(),
    writes: z.array(write).optional(),
  }),
  z.object({
    id: z.string().nullable(),
    status: z.literal('refused'),
    refusals,
    missed: z.array(z.object({ id: z.string(), revision: z.int(), commands: z.array(command) })).optional(),
  }),
])
export type MessageReply = z.infer<typeof messageReply>

/** An answer that was understood, a refusal with its reasons, or no answer at all. */
export type Reply<T> =
  | { readonly kind: 'ok'; readonly value: T }
  | { readonly kind: 'refused'; readonly status: number; readonly refusals: readonly Refusal[] }
  | { readonly kind: 'unreachable' }

async function ask<S extends z.ZodType>(schema: S, path: string, init?: RequestInit): Promise<Reply<z.output<S>>> {
  try {
    const reply = await fetch(path, {
      ...init,
      headers: { ...(init?.body ? { 'content-type': 'application/json' } : {}) },
      signal: AbortSignal.timeout(20_000),
    })
    const body: unknown = await reply.json()
    const parsed = schema.safeParse(body)
    if (parsed.success) return { kind: 'ok', value: parsed.data }
    const refused = refusedBody.safeParse(body)
    if (reply.status === 503 || !refused.success) return { kind: 'unreachable' }
    return { kind: 'refused', status: reply.status, refusals: refused.data.refusals }
  } catch {
    return { kind: 'unreachable' }
  }
}

const at = (id: string) => `/api/properties/${encodeURIComponent(id)}`

export const fetchProperties = () => ask(z.object({ properties: z.array(listed) }), '/api/properties')
export const fetchProperty = (id: string) => ask(whole, at(id))
export const fetchRevision = (id: string, revision: number) => ask(revisionSchema, `${at(id)}/revisions/${revision}`)
export const fetchSteps = (id: string, before: number) =>
  ask(z.object({ steps: z.array(step) }), `${at(id)}/steps?before=${before}`)
export const postMessages = (property: string, messages: readonly unknown[]) =>
  ask(z.object({ replies: z.array(messageReply) }), `${at(property)}/messages`, {
    method: 'POST',
    body: JSON.stringify({ messages }),
  })
/** Takes a file's text in; with a name, as a copy under that name. */
export const postPropertyFile = (text: string, copyName: string | null) =>
  ask(
    z.object({ id: z.uuid() }),
    `/api/properties${copyName === null ? '' : `?as=copy&name=${encodeURIComponent(copyName)}`}`,
    { method: 'POST', body: text },
  )
export const fileAddress = (id: string, withPictures: boolean) => `${at(id)}/file${withPictures ? '?as=zip' : ''}`
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
