import { Readable } from 'node:stream'
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { defineEventHandler, getRequestHeader, getRouterParam, setResponseHeader, type H3Event } from 'h3'
import * as z from 'zod'
import { MOST_BYTES, parseJson } from '../../core/formats'
import { accepted, parseWith, refusal, refused, type Outcome, type RefusalCode } from '../../core/refusal'
import { isDatabaseDown } from '../db/database'
import { fresh, refuse } from './reply'

const pack = promisify<string, Buffer>(gzip)

/** A route of the interface: never cached, a database that is away answers 503, anything unforeseen 500 and the log. */
export function route<T>(handle: (event: H3Event) => Promise<T>) {
  return defineEventHandler(async (event) => {
    fresh(event)
    try {
      return await compressed(event, await handle(event))
    } catch (error) {
      if (isDatabaseDown(error)) return refuse(event, 503, [refusal('database_down')])
      console.error(error)
      return refuse(event, 500, [refusal('unexpected')])
    }
  })
}

/** Shorter answers than this are not worth the packing. */
const WORTH_PACKING = 2000

/**
 * A long answer packed for whoever can unpack it: twenty years of readings shrink to a tenth, and a garden's signal
 * is thin.
 */
async function compressed(event: H3Event, value: unknown): Promise<unknown> {
  if (event.handled || value instanceof Readable) return value // sent already, or on its way piece by piece
  if (!/\bgzip\b/.test(getRequestHeader(event, 'accept-encoding') ?? '')) return value
  const text = typeof value === 'string' ? value : JSON.stringify(value)
  if (text === undefined || text.length < WORTH_PACKING) return value
  if (typeof value !== 'string') setResponseHeader(event, 'content-type', 'application/json; charset=utf-8')
  setResponseHeader(event, 'content-encoding', 'gzip')
  setResponseHeader(event, 'vary', 'accept-encoding')
  return pack(text)
}

/** The property named by the address. */
export function propertyParam(event: H3Event): Outcome<string> {
  const parsed = z.uuid().safeParse(getRouterParam(event, 'id'))
  return parsed.success ? accepted(parsed.data.toLowerCase()) : refused(refusal('bad_address', ['address']))
}

/** The picture named by the address. */
export function pictureParam(event: H3Event): Outcome<string> {
  const sha256 = getRouterParam(event, 'sha256') ?? ''
  return /^[0-9a-f]{64}$/.test(sha256) ? accepted(sha256) : refused(refusal('bad_picture_address', ['address']))
}

/** The body's bytes; null where there are more than the limit. */
export async function readBytes(event: H3Event): Promise<Buffer | null> {
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > MOST_BYTES) return null
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > MOST_BYTES) return null
    chunks.push(chunk)
  }
  return Buffer.concat(chunks)
}

/** The body's text, read no further than the limit; JSON content only. The status is the one to refuse with. */
export async function readText(
  event: H3Event,
): Promise<{ ok: true; text: string } | { ok: false; status: number; code: RefusalCode }> {
  if (!/^application\/json\b/i.test(getRequestHeader(event, 'content-type') ?? ''))
    return { ok: false, status: 415, code: 'json_only' }
  const bytes = await readBytes(event)
  return bytes === null ? { ok: false, status: 413, code: 'too_large' } : { ok: true, text: bytes.toString('utf8') }
}

/** A JSON body checked against a schema. */
export async function readBodyAs<S extends z.ZodType>(
  event: H3Event,
  schema: S,
): Promise<
  { ok: true; value: z.output<S> } | { ok: false; status: number; refusals: readonly ReturnType<typeof refusal>[] }
> {
  const body = await readText(event)
  if (!body.ok) return { ok: false, status: body.status, refusals: [refusal(body.code)] }
  const json = parseJson(body.text)
  const parsed = json.ok ? parseWith(schema, json.value) : json
  return parsed.ok ? parsed : { ok: false, status: 400, refusals: parsed.refusals }
}
